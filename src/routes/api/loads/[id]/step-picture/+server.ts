import { answering, idFrom } from '$lib/server/http/api';
import { pictureAnswer } from '$lib/server/http/loadAnswer';
import { getDb } from '$lib/server/context';
import { findStepPicture } from '$lib/server/loads/loads';

export const GET = ({ params }) => answering(() => pictureAnswer(findStepPicture(getDb(), idFrom(params.id, 'load'))));
