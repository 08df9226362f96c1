import { auditListView } from '$lib/server/rooms/audits/view';

export const load = async ({ locals: { db }, parent, url }) => {
	const { clientId } = await parent();
	return { where: 'Audits', list: auditListView(db, clientId, Math.max(1, Number(url.searchParams.get('page')) || 1)) };
};
