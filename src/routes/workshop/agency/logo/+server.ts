import { findLogo } from '$lib/server/rooms/reports/agency';
import { pictureAnswer } from '../../../reports/pictureAnswer';

export const GET = ({ locals }) => pictureAnswer(findLogo(locals.db), 'private, no-cache');
