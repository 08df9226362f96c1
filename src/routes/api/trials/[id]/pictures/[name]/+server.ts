import { answering, idFrom } from '$lib/server/http/api';
import { pictureAnswer } from '$lib/server/rooms/loads/answer';
import { findDifferencePicture } from '$lib/server/rooms/trials/evidence';

/** A difference picture; it changes with the loads. */
export const GET = ({ locals, params }) =>
	answering(() =>
		pictureAnswer(findDifferencePicture(locals.db, idFrom(params.id, 'trial'), params.name), 'image/webp', false)
	);
