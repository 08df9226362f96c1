/** A component of the library as a form has it. */
import * as v from 'valibot';
import { LibraryComponent } from '$core/setups/component';
import type { PriceRule } from '$core/setups/price';
import { parsed } from '../../base/parse';
import { Figure, linesOf, Text, Texts } from '../../http/fields';
import type { Typed } from '../../http/form';

/** A tier and what it costs; what is left empty is none, or any number. */
const PriceRow = v.object({
	tier: Text,
	price: Figure,
	per: Text,
	sites: Figure,
	visits: Figure,
	perThousand: Figure,
	percentOff: Figure,
	setupHours: Figure
});
export type PriceRow = v.InferOutput<typeof PriceRow>;

export const ComponentFields = v.object({
	kind: Text,
	name: Text,
	versions: Text,
	prices: v.optional(v.array(PriceRow), []),
	jobs: Texts,
	features: Text,
	hosts: Text,
	paths: Text,
	markers: Text,
	initiators: Text,
	note: Text,
	/** Names of files of settings that go. */
	dropSettings: Texts
});
export type TypedComponent = Typed<typeof ComponentFields>;

export function typedComponent(component: LibraryComponent): TypedComponent {
	const { kind, name, versions, prices, jobs, features, recognition, note } = component;
	const { hosts, paths, markers, initiators } = recognition;
	return {
		kind,
		name,
		versions: versions.join('\n'),
		prices: prices.map(priceRow),
		jobs,
		features: features.join('\n'),
		hosts: hosts.join('\n'),
		paths: paths.join('\n'),
		markers: markers.join('\n'),
		initiators: initiators.join('\n'),
		note,
		dropSettings: []
	};
}

export const priceRow = ({ firstYearOff, ...rule }: PriceRule): PriceRow => ({
	...rule,
	percentOff: firstYearOff ? Math.round(firstYearOff * 1000) / 10 : null
});

export const priceRuleOf = ({ percentOff, ...row }: PriceRow) => ({
	...row,
	price: row.price ?? 0,
	setupHours: row.setupHours ?? 0,
	firstYearOff: (percentOff ?? 0) / 100
});

type Settings = LibraryComponent['settings'];

/** @param saved settings that it has @param added one of the same name takes its place @throws Invalid, by field */
export function componentFrom(typed: TypedComponent, kept: Settings, added: Settings): LibraryComponent {
	const { versions, features, hosts, paths, markers, initiators, prices, dropSettings, ...rest } = typed;
	const gone = new Set([...dropSettings, ...added.map(({ name }) => name)]);
	return parsed(LibraryComponent, {
		...rest,
		versions: linesOf(versions),
		features: linesOf(features),
		prices: prices.map(priceRuleOf),
		recognition: {
			hosts: linesOf(hosts),
			paths: linesOf(paths),
			markers: linesOf(markers),
			initiators: linesOf(initiators)
		},
		settings: [...kept.filter(({ name }) => !gone.has(name)), ...added]
	});
}
