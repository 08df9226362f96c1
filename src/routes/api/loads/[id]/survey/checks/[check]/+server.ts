import { answering, idFrom } from '$lib/server/http/api';
import { pictureAnswer } from '$lib/server/rooms/loads/answer';
import { findSurveyPicture } from '$lib/server/rooms/loads/loads';

/** Of the moment after a check was tried; checks are counted from 0. */
export const GET = ({ locals, params }) =>
	answering(() => pictureAnswer(findSurveyPicture(locals.db, idFrom(params.id, 'load'), Number(params.check))));
