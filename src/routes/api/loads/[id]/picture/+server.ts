import { answering, idFrom } from '$lib/server/access/api';
import { pictureAnswer } from '$lib/server/access/loads';
import { getDb } from '$lib/server/context';
import { findPicture } from '$lib/server/db/loads';

export const GET = ({ params }) => answering(() => pictureAnswer(findPicture(getDb(), idFrom(params.id, 'load'))));
