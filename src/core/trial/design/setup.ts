/** What an arm's page runs on, and how two setups differ. */
import * as v from 'valibot';

export const COMPONENT_KINDS = ['builder', 'theme', 'plugin', 'third party', 'host', 'CDN', 'other'] as const;
/** Jobs that only one component of a setup should do; two at once get in each other's way (practice). */
export const EXCLUSIVE_JOBS = [
	'page cache',
	'script minifying',
	'script delay',
	'style minifying',
	'image squeezing',
	'lazy loading',
	'font hosting',
	'CDN rewriting'
] as const;

const short = (name: string, most = 120) =>
	v.pipe(v.string(`${name} is text.`), v.trim(), v.maxLength(most, `${name} has at most ${most} characters.`));

export const Component = v.object({
	kind: v.picklist(COMPONENT_KINDS, `The kind is one of: ${COMPONENT_KINDS.join(', ')}.`),
	name: v.pipe(short('The name'), v.nonEmpty('A component needs a name.')),
	version: v.optional(short('The version', 40), ''),
	tier: v.optional(v.picklist(['free', 'paid', 'unknown'], 'The tier is free, paid or unknown.'), 'unknown'),
	/** In the agency's own currency; null when not known. */
	monthlyCost: v.optional(
		v.nullable(v.pipe(v.number('The monthly cost is a number.'), v.minValue(0, 'The monthly cost is not negative.'))),
		null
	),
	/** The exclusive jobs that it does. */
	jobs: v.optional(v.array(v.picklist(EXCLUSIVE_JOBS, `Jobs are: ${EXCLUSIVE_JOBS.join(', ')}.`)), []),
	/** Text or the content of a JSON file, kept as it is. */
	settings: v.optional(short('The settings', 200_000), '')
});
export type Component = v.InferOutput<typeof Component>;

export const Setup = v.object({
	components: v.optional(
		v.pipe(v.array(Component, 'Components are a list.'), v.maxLength(60, 'At most 60 components.')),
		[]
	),
	/** Features of the page in this arm, on or off: what must be level for a fair answer. */
	features: v.optional(v.record(v.pipe(v.string(), v.maxLength(80)), v.boolean('A feature is true or false.')), {}),
	/** Hours that it takes to bring the page into this state; null when not known. */
	effortHours: v.optional(
		v.nullable(v.pipe(v.number('The effort is a number of hours.'), v.minValue(0, 'The effort is not negative.'))),
		null
	)
});
export type Setup = v.InferOutput<typeof Setup>;

export const NO_SETUP: Setup = { components: [], features: {}, effortHours: null };

export interface SetupDifference {
	component: string;
	kind: string;
	what: 'added' | 'gone' | 'changed';
	/** Field and its values before and after; empty for added and gone. */
	fields: { name: string; before: string; after: string }[];
}

const FIELDS = ['version', 'tier', 'monthlyCost', 'jobs', 'settings'] as const;

/** Components by kind and name: added, gone, or changed field by field; JSON settings key by key. */
export function setupDifferences(before: Setup, after: Setup): SetupDifference[] {
	const key = ({ kind, name }: Component) => `${kind}/${name.toLowerCase()}`;
	const old = new Map(before.components.map((item) => [key(item), item]));
	const now = new Map(after.components.map((item) => [key(item), item]));
	const result: SetupDifference[] = [];
	for (const [id, one] of now) {
		const was = old.get(id);
		if (!was) result.push({ component: one.name, kind: one.kind, what: 'added', fields: [] });
		else {
			const fields = FIELDS.flatMap((field) => {
				if (field === 'settings') return settingsDifferences(was.settings, one.settings);
				const [from, to] = [String(was[field] ?? ''), String(one[field] ?? '')];
				return from === to ? [] : [{ name: field === 'monthlyCost' ? 'monthly cost' : field, before: from, after: to }];
			});
			if (fields.length) result.push({ component: one.name, kind: one.kind, what: 'changed', fields });
		}
	}
	for (const [id, one] of old)
		if (!now.has(id)) result.push({ component: one.name, kind: one.kind, what: 'gone', fields: [] });
	return result;
}

function settingsDifferences(before: string, after: string): SetupDifference['fields'] {
	if (before === after) return [];
	const flat = (text: string): Map<string, string> | null => {
		try {
			const value: unknown = JSON.parse(text);
			if (typeof value !== 'object' || value === null) return null;
			const entries = new Map<string, string>();
			const walk = (item: unknown, path: string) => {
				if (typeof item === 'object' && item !== null)
					for (const [name, part] of Object.entries(item)) walk(part, path ? `${path}.${name}` : name);
				else entries.set(path, JSON.stringify(item));
			};
			walk(value, '');
			return entries;
		} catch {
			return null;
		}
	};
	const [old, now] = [flat(before || '{}'), flat(after || '{}')];
	if (!old || !now) return [{ name: 'settings', before: before.slice(0, 200), after: after.slice(0, 200) }];
	const names = [...new Set([...old.keys(), ...now.keys()])].sort();
	return names
		.filter((name) => old.get(name) !== now.get(name))
		.map((name) => ({
			name: `settings: ${name}`,
			before: old.get(name) ?? 'not set',
			after: now.get(name) ?? 'not set'
		}));
}

/** Sentences for components of one setup that do the same exclusive job. */
export function exclusiveClashes({ components }: Pick<Setup, 'components'>): string[] {
	return EXCLUSIVE_JOBS.flatMap((job) => {
		const doing = components.filter((component) => component.jobs.includes(job)).map((component) => component.name);
		return doing.length > 1
			? [
					`${doing.slice(0, -1).join(', ')} and ${doing.at(-1)} both do the ${job}: they can undo or break each other. Let one of them do it.`
				]
			: [];
	});
}

/** Sum of the known monthly costs; null when none is known. */
export function monthlyCostOf({ components }: Setup): number | null {
	const priced = components.filter((component) => component.monthlyCost !== null);
	return priced.length ? priced.reduce((sum, item) => sum + item.monthlyCost!, 0) : null;
}
