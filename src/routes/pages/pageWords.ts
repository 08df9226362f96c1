/** Pages and their figures as the list writes them. */

/** "/timetable", with its query; the host stands above the list. */
export function pathOf(url: string): string {
	const { pathname, search } = new URL(url);
	try {
		return decodeURI(pathname + search);
	} catch {
		return pathname + search;
	}
}

/** "41,820"; empty for what is not known. */
export function amountWords(amount: number | null, decimals = 2): string {
	return amount === null ? '' : amount.toLocaleString('en-GB', { maximumFractionDigits: decimals });
}
