import { answering, idFrom } from '$lib/server/http/api';
import { pictureAnswer } from '$lib/server/rooms/loads/answer';
import { findSurveyPicture } from '$lib/server/rooms/loads/loads';

export const GET = ({ locals, params }) =>
	answering(() => pictureAnswer(findSurveyPicture(locals.db, idFrom(params.id, 'load'), null)));
