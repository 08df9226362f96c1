import { answering, idFrom } from '$lib/server/http/api';
import { pictureAnswer } from '$lib/server/rooms/loads/answer';
import { findStepPicture } from '$lib/server/rooms/loads/loads';

export const GET = ({ locals, params }) =>
	answering(() => pictureAnswer(findStepPicture(locals.db, idFrom(params.id, 'load'))));
