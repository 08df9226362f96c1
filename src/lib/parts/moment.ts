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
