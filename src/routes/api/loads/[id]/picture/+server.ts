import { answering, idFrom } from '$lib/server/http/api';
import { pictureAnswer } from '$lib/server/http/loadAnswer';
import { getDb } from '$lib/server/context';
import { findPicture } from '$lib/server/loads/loads';

export const GET = ({ params }) => answering(() => pictureAnswer(findPicture(getDb(), idFrom(params.id, 'load'))));
