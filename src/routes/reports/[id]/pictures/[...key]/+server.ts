import { getDb } from '$lib/server/context';
import { findDraftPicture } from '$lib/server/reports/pictures';
import { pictureAnswer } from '../../../pictureAnswer';

/** Of the draft: as the loads have them now. */
export const GET = ({ params }) => pictureAnswer(findDraftPicture(getDb(), params.key), 'private, max-age=60');
