/** A host as it really is, in words. */
import type { HostLook, Resolved } from '../load/requests/hostLook';
import { median } from '../stats/summary';
import { formatDuration } from './format';
import { ENGLISH } from './words';

/** "24 ms, 22 ms to 31 ms in 3"; empty without any. */
function describeTimes(times: readonly number[]): string {
	if (!times.length) return '';
	const [least, most] = [Math.min(...times), Math.max(...times)].map(formatDuration) as [string, string];
	const middle = formatDuration(median(times));
	return least === most
		? ENGLISH.say('range.same', { middle, n: times.length })
		: ENGLISH.say('range.some', { middle, least, most, n: times.length });
}

export function describeResolved({ firstMs, againMs, problem }: Resolved): string {
	if (firstMs === null || againMs === null) return problem ?? '';
	return ENGLISH.say('host.resolved', { first: formatDuration(firstMs), again: formatDuration(againMs) });
}

/** Each row: what it is, and what was seen. */
export function hostLookRows(look: HostLook): { name: string; words: string }[] {
	const { resolved, address, isMapped, connectMs, tlsMs, tlsVersion, problem, owner, ownerProblem } = look;
	const [found = null] = resolved.flatMap(({ addresses }) => addresses);
	return [
		...resolved.map((one) => ({
			name: ENGLISH.say('host.resolver', { name: one.resolver }),
			words: describeResolved(one)
		})),
		{ name: ENGLISH.say('host.address'), words: found ?? '–' },
		{
			name: ENGLISH.say('host.connect'),
			words: problem
				? `${problem}.`
				: `${describeTimes(connectMs)}${isMapped ? ENGLISH.say('host.mapped', { address: address ?? '' }) : ''}`
		},
		...(tlsMs.length
			? [{ name: ENGLISH.say('host.tls'), words: `${describeTimes(tlsMs)}${tlsVersion ? `, ${tlsVersion}` : ''}` }]
			: []),
		{
			name: ENGLISH.say('host.owner'),
			words: owner
				? [owner.organisation, owner.network, owner.country].filter(Boolean).join(', ')
				: ENGLISH.say('host.no-owner', { why: ownerProblem ?? '' })
		}
	];
}

/** One line for beside a load's figures. */
export function describeHostLook(look: HostLook, on: string): string {
	const firsts = look.resolved.flatMap(({ firstMs }) => firstMs ?? []);
	return ENGLISH.say('host.line', {
		host: look.host,
		lookUp: firsts.length ? formatDuration(Math.min(...firsts)) : '–',
		connect: look.connectMs.length ? formatDuration(median(look.connectMs)) : '–',
		tls: look.tlsMs.length ? formatDuration(median(look.tlsMs)) : '–',
		owner: look.owner?.organisation ?? look.owner?.network ?? '–',
		on
	});
}
