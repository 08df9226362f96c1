import { getDb } from '$lib/server/context';
import { findLogo } from '$lib/server/reports/agency';
import { pictureAnswer } from '../../../reports/pictureAnswer';

export const GET = () => pictureAnswer(findLogo(getDb()), 'private, no-cache');
