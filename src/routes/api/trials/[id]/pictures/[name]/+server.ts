import { answering, idFrom } from '$lib/server/access/api';
import { pictureAnswer } from '$lib/server/access/loads';
import { getDb } from '$lib/server/context';
import { findEvidencePicture } from '$lib/server/db/evidence';

/** A difference picture; it changes with the loads. */
export const GET = ({ params }) =>
	answering(() =>
		pictureAnswer(findEvidencePicture(getDb(), idFrom(params.id, 'trial'), params.name), 'image/webp', false)
	);
