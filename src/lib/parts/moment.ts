/** Days and times as they are typed. */

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

/** "2026-12-01T09:30" in its parts; what is no such text is kept as a day, so that nothing typed is lost. */
export function partsOfMoment(value: string): { day: string; time: string } {
	const [day = '', time = ''] = value.split('T');
	return { day, time };
}

/** "2026-12-01" as "1 Dec 2026"; other text as it is. */
export function dayWords(day: string): string {
	const [, year, month, date] = /^(\d{4})-(\d{2})-(\d{2})$/.exec(day) ?? [];
	return year ? `${Number(date)} ${MONTHS[Number(month) - 1] ?? month} ${year}` : day;
}

/** What a calendar takes for a day: "1 Dec 2026", "2026-12-01" or "1.12.2026"; nothing for other text. */
export function dayOf(text: string): Date | undefined {
	const iso = isoOfDay(text).replace(/^(\d{1,2})\.(\d{1,2})\.(\d{4})$/, (_, day: string, month: string, year: string) =>
		[year, month.padStart(2, '0'), day.padStart(2, '0')].join('-')
	);
	const [, year, month, day] = (/^(\d{4})-(\d{2})-(\d{2})$/.exec(iso) ?? []).map(Number);
	if (!year || !month || !day) return undefined;
	const date = new Date(year, month - 1, day);
	return date.getMonth() === month - 1 && date.getDate() === day ? date : undefined;
}

/** "1 Dec 2026" as "2026-12-01"; other text as it is. */
export function isoOfDay(words: string): string {
	const [, date, month, year] = /^(\d{1,2}) (\w{3}) (\d{4})$/.exec(words.trim()) ?? [];
	const at = MONTHS.indexOf(month ?? '');
	return at >= 0 ? `${year}-${String(at + 1).padStart(2, '0')}-${date!.padStart(2, '0')}` : words.trim();
}

/** Local time; a day without a time begins at midnight, no day is no moment. */
export function joinMoment(day: string, time: string): string {
	const iso = isoOfDay(day);
	if (!iso) return '';
	const [, hour, minute] = /^(\d{1,2}):(\d{2})$/.exec(time.trim()) ?? [];
	return `${iso}T${hour ? `${hour.padStart(2, '0')}:${minute}` : time.trim() || '00:00'}`;
}
