import type { HandOverSettings } from './settings';

type Bag = Record<string, unknown>;

/**
 * The page's own analytics gets whole numbers (layout shift times 1,000), as events that are no interaction: a visit
 * with nothing else stays one that nobody interacted with.
 * @returns whether there was a function to call
 */
export function handOver(metrics: Record<string, number>, to: HandOverSettings): boolean {
	const names = to.call.split('.');
	const owner = names.slice(0, -1).reduce<Bag | undefined>((bag, name) => bag?.[name] as Bag, window as never);
	const call = owner?.[names.at(-1)!];
	if (typeof call !== 'function') return false;
	for (const [metric, event] of Object.entries(to.events)) {
		const value = metrics[metric];
		if (value === undefined) continue;
		const whole = Math.round(metric === 'cls' ? value * 1000 : value);
		try {
			call.call(owner, { [to.nameField]: event, [to.valueField]: whole, [to.quietField]: true });
		} catch {
			// The page's analytics has its own troubles.
		}
	}
	return true;
}
