import { answering, idFrom } from '$lib/server/http/api';
import { pictureAnswer } from '$lib/server/http/loadAnswer';
import { getDb } from '$lib/server/context';
import { findDifferencePicture } from '$lib/server/trials/evidence';

/** A difference picture; it changes with the loads. */
export const GET = ({ params }) =>
	answering(() =>
		pictureAnswer(findDifferencePicture(getDb(), idFrom(params.id, 'trial'), params.name), 'image/webp', false)
	);
