/** One table per benchmark: what was measured, the limit it is held to, and whether it holds. */
export interface Row {
	what: string;
	measured: string;
	/** Both left out: a figure for comparison, held to nothing. */
	limit?: string;
	holds?: boolean;
}

export function printTable(title: string, rows: readonly Row[]): boolean {
	console.log(`\n### ${title}\n`);
	console.log('| what | measured | limit | holds |\n| --- | --- | --- | --- |');
	for (const { what, measured, limit = '', holds } of rows)
		console.log(`| ${what} | ${measured} | ${limit} | ${holds === undefined ? '' : holds ? 'yes' : 'NO'} |`);
	const good = rows.every((row) => row.holds !== false);
	if (!good) process.exitCode = 1;
	return good;
}

export const percent = (share: number, decimals = 1) => `${(share * 100).toFixed(decimals)} %`;
