import { getDb } from '$lib/server/context';
import { findReportPicture } from '$lib/server/reports/pictures';
import { pictureAnswer } from '../../../../reports/pictureAnswer';
import { enter } from '../../../door';

export const GET = ({ params, cookies, getClientAddress }) => {
	const entry = enter(params.token, getClientAddress(), cookies);
	if ('answer' in entry) return entry.answer;
	return pictureAnswer(findReportPicture(getDb(), entry.open.versionId, params.key), 'private, max-age=3600');
};
