/** The settings of a site's script as a form has them; custom timings are lines of text. */
import * as v from 'valibot';
import { FIELD_METRICS } from '$core/field/histogram';
import { CustomTiming, VisitSettings } from '$core/field/visitSettings';
import { parsed } from '../../base/parse';
import { NotPossible } from '../../base/refusal';
import { linesOf, Text, wordsOf } from '../../http/fields';
import type { Typed } from '../../http/form';

/** Events of the page's own analytics, by metric. */
const EventFields = v.object(Object.fromEntries(FIELD_METRICS.map((id) => [id, Text])));

export const SettingsFields = v.object({
	site: Text,
	sampling: Text,
	timings: Text,
	goals: Text,
	keepDays: Text,
	timeZone: Text,
	call: Text,
	nameField: Text,
	valueField: Text,
	quietField: Text,
	events: v.optional(EventFields, v.parse(EventFields, {}))
});

export function typedSettings(siteId: number, settings: VisitSettings): Typed<typeof SettingsFields> {
	const { sampling, goals, keepDays, timeZone, handOver } = settings;
	return {
		site: String(siteId),
		sampling: String(Number((sampling * 100).toFixed(2))),
		timings: timingLines(settings),
		goals: goals.join(', '),
		keepDays: keepDays === null ? '' : String(keepDays),
		timeZone,
		call: handOver?.call ?? '',
		nameField: handOver?.nameField ?? 'event',
		valueField: handOver?.valueField ?? 'value',
		quietField: handOver?.quietField ?? 'nonInteraction',
		events: v.parse(EventFields, handOver?.events ?? {})
	};
}

/** @throws Invalid with what is wrong at its field */
export function settingsFrom(typed: Typed<typeof SettingsFields>): VisitSettings {
	const { call, nameField, valueField, quietField } = typed;
	const events = Object.fromEntries(Object.entries(typed.events).filter(([, event]) => event !== ''));
	const settings = {
		sampling: Number(typed.sampling.replace(',', '.')) / 100,
		timings: parseTimings(typed.timings),
		timeZone: typed.timeZone.trim() || 'UTC',
		goals: wordsOf(typed.goals),
		keepDays: typed.keepDays.trim() === '' ? null : Number(typed.keepDays),
		handOver: call.trim() === '' ? null : { call, nameField, valueField, quietField, events }
	};
	return parsed(VisitSettings, settings, (path) => path.replace(/^handOver\./, ''));
}

/** "name good poor margin": one a line, times in ms. */
export const timingLines = ({ timings }: Pick<VisitSettings, 'timings'>): string =>
	timings.map(({ name, good, poor, margin }) => `${name} ${good} ${poor} ${margin}`).join('\n');

/** @throws NotPossible that names the line which cannot be read */
export function parseTimings(text: string): CustomTiming[] {
	return linesOf(text).map((line, i) => {
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
