import { answering, idFrom } from '$lib/server/access/api';
import { pictureAnswer } from '$lib/server/access/loads';
import { getDb } from '$lib/server/context';
import { findStepPicture } from '$lib/server/db/loads';

export const GET = ({ params }) => answering(() => pictureAnswer(findStepPicture(getDb(), idFrom(params.id, 'load'))));
