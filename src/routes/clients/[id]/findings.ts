/** One line for each part of a client's sheet. */
import type { ClientInput } from '$core/clients/client';
import type { Assessment } from '$core/field/assessment';
import type { DeviceClass } from '$core/field/reading';
import { describeTally } from '$core/wording/field';
import type { SetupsView } from '$lib/server/rooms/setups/view';
import type { PagePair } from '$core/pages/pairs';

/** "3 trials", "no trial". */
export const countOf = (n: number, thing: string): string =>
	n === 0 ? `no ${thing}` : n === 1 ? `one ${thing}` : `${n} ${thing}s`;

interface Facts {
	client: Pick<ClientInput, 'targets' | 'margins' | 'mustSend' | 'currency'>;
	allTrials: number;
	trials: readonly { status: string }[];
	setups: SetupsView;
	thirdParties: { hosts: number; candidates: number; unread: number };
	pairs: readonly PagePair[];
	field: readonly { device: DeviceClass; assessment: Assessment }[];
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

export function findings({ client, allTrials, trials, setups, thirdParties, pairs, field }: Facts) {
	const open = trials.filter(({ status }) => status !== 'done').length;
	const clashes = setups.flatMap((setup) => setup.clashes);
	const over = setups.flatMap(({ lines }) => lines.filter(({ isOver }) => isOver));
	return {
		trials: capital(countOf(allTrials, 'trial')) + (open ? `, ${open} of the newest not done` : ''),
		field: fieldWords(field),
		setups: setupWords(
			setups,
			clashes.length,
			over.map(({ name }) => name)
		),
		setupTone: clashes.length + over.length > 0 ? ('trouble' as const) : ('plain' as const),
		thirdParties: registerWords(thirdParties),
		competitors: pairWords(pairs),
		usual: usualWords(client)
	};
}

function fieldWords(field: Facts['field']): string {
	if (!field.length) return 'No page is chosen yet';
	if (field.every(({ assessment }) => assessment === 'no-data')) return 'No data yet';
	const phones = field.filter(({ device }) => device === 'phone').map(({ assessment }) => assessment);
	return describeTally('phone', phones);
}

function setupWords(setups: SetupsView, clashes: number, over: readonly string[]): string {
	if (clashes) return 'Two components do the same job';
	if (over.length) return `${over.join(', ')}: more visits than the tier covers`;
	const components = new Set(setups.flatMap(({ lines }) => lines.map(({ name }) => name))).size;
	return components ? capital(countOf(components, 'component')) : 'Not written down yet';
}

function registerWords({ hosts, candidates, unread }: Facts['thirdParties']): string {
	if (unread && !hosts) return 'The lab reads the loads of this client';
	if (!hosts) return 'None seen in a load yet';
	return `${capital(countOf(hosts, 'host'))}, ${candidates ? `${candidates} to ask about` : 'all confirmed'}`;
}

/** Types of which at least one competitor has a page. */
function pairWords(comparisons: Facts['pairs']): string {
	const paired = comparisons.filter(({ others }) => others.some(({ url }) => url !== null)).length;
	return paired ? `${capital(countOf(paired, 'page type'))} beside theirs` : 'None paired yet';
}

function usualWords({ targets, margins, mustSend }: Facts['client']): string {
	const own = [
		targets.length ? countOf(targets.length, 'target') : '',
		Object.keys(margins).length ? `${countOf(Object.keys(margins).length, 'margin')} of its own` : '',
		mustSend.length ? `${countOf(mustSend.length, 'request')} that must leave` : ''
	].filter(Boolean);
	return own.length ? capital(own.join(', ')) : 'Those of the house';
}
