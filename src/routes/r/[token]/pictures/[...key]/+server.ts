import { findReportPicture } from '$lib/server/rooms/reports/pictures';
import { pictureAnswer } from '../../../../reports/pictureAnswer';
import { enter } from '../../../door';

export const GET = (event) => {
	const { locals, params } = event;
	const entry = enter(event);
	if ('answer' in entry) return entry.answer;
	return pictureAnswer(findReportPicture(locals.db, entry.open.versionId, params.key), 'private, max-age=3600');
};
