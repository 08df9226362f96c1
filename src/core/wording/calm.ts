/** How busy the machine was, in words. */
import type { CalmRecord } from '../load/record';
import { ENGLISH } from './words';

const percent = (share: number) => Math.round(share * 100);

/** Of one load: "Other programs and machines took 4 % of the processor time, 12 % in the worst half second." */
export function wordCalm({ share, burst, disturbed, waitedMs, gaveUp }: CalmRecord): string {
	const shares =
		share === null
			? ENGLISH.say('calm.unknown')
			: ENGLISH.say('calm.shares', {
					share: percent(share),
					burst: percent(burst ?? 0),
					disturbed: disturbed ? 'yes' : 'no'
				});
	if (waitedMs < 1000) return shares;
	const wait = ENGLISH.say('calm.waited', { seconds: Math.round(waitedMs / 1000), gaveUp: gaveUp ? 'yes' : 'no' });
	return `${shares} ${wait}`;
}

/** Of a trial whose machine was too busy to wait for calm loads. */
export function wordBusyMachine(disturbed: number, loads: number): string {
	return ENGLISH.say('calm.busy-machine', { disturbed, loads });
}
