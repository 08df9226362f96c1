import { findDraftPicture } from '$lib/server/rooms/reports/pictures';
import { pictureAnswer } from '../../../pictureAnswer';

/** Of the draft: as the loads have them now. */
export const GET = ({ locals, params }) =>
	pictureAnswer(findDraftPicture(locals.db, params.key), 'private, max-age=60');
