/** How busy the machine was, in words. */
import type { CalmRecord } from '../load/record/record';
import { PART_WORDS } from './parts';

const percent = (share: number) => Math.round(share * 100);

/** Of one load: "Other programs and machines took 4 % of the processor time, 12 % in the worst half second." */
export function wordCalm({ share, burst, disturbed, waitedMs, gaveUp }: CalmRecord): string {
	const shares =
		share === null
			? PART_WORDS.say('calm.unknown')
			: PART_WORDS.say('calm.shares', {
					share: percent(share),
					burst: percent(burst ?? 0),
					disturbed: disturbed ? 'yes' : 'no'
				});
	if (waitedMs < 1000) return shares;
	const wait = PART_WORDS.say('calm.waited', { seconds: Math.round(waitedMs / 1000), gaveUp: gaveUp ? 'yes' : 'no' });
	return `${shares} ${wait}`;
}

/** Of a trial whose machine was too busy to wait for calm loads. */
export function wordBusyMachine(disturbed: number, loads: number): string {
	return PART_WORDS.say('calm.busy-machine', { disturbed, loads });
}
