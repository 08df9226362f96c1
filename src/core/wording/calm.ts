/** How busy the machine was, in words. */
import type { CalmRecord } from '../load/record';

const percent = (share: number) => `${Math.round(share * 100)}\u00a0%`;

/** Of one load: "Others took 4 % of the processor time, 12 % in the worst half second." */
export function wordCalm({ share, burst, disturbed, waitedMs, gaveUp }: CalmRecord): string {
	const shares =
		share === null
			? 'This system does not tell how busy it was with something else.'
			: `Other programs and machines took ${percent(share)} of the processor time, ${percent(burst ?? 0)} in the worst half second${disturbed ? ': too much for a load that counts' : ''}.`;
	if (waitedMs < 1000) return shares;
	const seconds = Math.round(waitedMs / 1000);
	const wait = gaveUp ? `It did not become calm within ${seconds} s` : `The lab waited ${seconds} s until it was calm`;
	return `${shares} ${wait}.`;
}

/** Of a trial whose machine was too busy to wait for calm loads. */
export function wordBusyMachine(disturbed: number, loads: number): string {
	return `${disturbed} of ${loads} loads were made while other programs or machines took processor time, many of them twice in the same place. They count here, so that spreads are wide and small differences may stay hidden. End other programs, or measure at a quieter hour or on another machine, and repeat the trial.`;
}
