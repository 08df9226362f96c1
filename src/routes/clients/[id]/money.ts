/** The months in which a price changes, in words. */

const MONTHS = 12;

/** @param months from now, 0 for this one */
export function monthsWords(months: number): string {
	if (months === 0) return 'from now on';
	if (months < MONTHS) return `in ${months} ${months === 1 ? 'month' : 'months'}`;
	const years = Math.floor(months / MONTHS);
	const rest = months % MONTHS;
	const whole = years === 1 ? 'a year' : `${years} years`;
	return rest ? `in ${whole} and ${rest} ${rest === 1 ? 'month' : 'months'}` : `in ${whole}`;
}
