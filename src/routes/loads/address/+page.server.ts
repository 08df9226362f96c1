import { error } from '@sveltejs/kit';
import { conditionNames } from '$lib/server/rooms/conditions/saved';
import { addressHistory } from '$lib/server/rooms/loads/pageFigures';
import { fieldOfAddress } from '$lib/server/rooms/field/view';

/** One address over time: what counts of its loads, and what visitors have there. */
export const load = ({ locals: { db }, url: { searchParams } }) => {
	const address = searchParams.get('url') ?? '';
	if (!URL.canParse(address)) error(404, 'Name an address: open this page from a load of it.');
	const names = new Map(conditionNames(db).map(({ id, name }) => [id, name]));
	return {
		where: 'Loads › Over time',
		address,
		field: fieldOfAddress(db, address),
		conditions: addressHistory(db, address).map((own) => ({
			...own,
			name: names.get(own.conditionId) ?? own.conditionId
		}))
	};
};
