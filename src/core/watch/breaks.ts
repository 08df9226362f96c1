/** Where the lab itself changed. */
import type { MetricId } from '../metrics/catalogue';
import { blockOf } from './block';
import { measured, settingParts, type PageHistory, type PageReading, type Setting, type SettingPart } from './reading';

/** The lab changed: what came before can be compared with what comes after as far as the control page tells. */
export interface Break {
	page: number;
	condition: string;
	/** First reading under the new setting. */
	reading: number;
	parts: SettingPart[];
	from: Setting;
	to: Setting;
	/** How the control page moved over it, by metric: how much of any difference is the lab's. In the metric's unit. */
	control: { metric: MetricId; from: number; to: number }[];
}

export function breaksOf({ page, condition, readings }: PageHistory): Break[] {
	const readable = readings.filter(({ setting }) => setting !== null);
	return readable.slice(1).flatMap((reading, i) => {
		const before = readable[i]!;
		const parts = settingParts(before.setting, reading.setting);
		if (!parts.length) return [];
		const control = controlOver(before, reading);
		return [{ page, condition, reading: reading.reading, parts, from: before.setting!, to: reading.setting!, control }];
	});
}

function controlOver(before: PageReading, after: PageReading): Break['control'] {
	return (Object.keys(after.control ?? {}) as MetricId[]).flatMap((metric) => {
		const [from, to] = [before, after].map(({ control }) => blockOf(measured(control?.[metric]))?.middle);
		return from === undefined || to === undefined ? [] : [{ metric, from, to }];
	});
}
