/** Custom timings as lines of text: what the analyst types, and sees again. */
import * as v from 'valibot';
import { CustomTiming, type VisitSettings } from '$core/field/visitSettings';
import { NotPossible } from '../../base/refusal';

/** "name good poor margin": one a line, times in ms. */
export const timingLines = ({ timings }: Pick<VisitSettings, 'timings'>): string =>
	timings.map(({ name, good, poor, margin }) => `${name} ${good} ${poor} ${margin}`).join('\n');

/** @throws NotPossible that names the line which cannot be read */
export function parseTimings(text: string): CustomTiming[] {
	return text
		.split('\n')
		.map((line) => line.trim())
		.filter(Boolean)
		.map((line, i) => {
			const [name = '', good, poor, margin] = line.split(/[\s,;]+/);
			const wish = { name, good: Number(good), poor: Number(poor), ...(margin ? { margin: Number(margin) } : {}) };
			const read = v.safeParse(CustomTiming, wish);
			if (read.success) return read.output;
			throw new NotPossible(
				422,
				`Line ${i + 1}: ${read.issues[0].message} Write a name, then good and poor in ms: menu-ready 500 900.`,
				'timings'
			);
		});
}
