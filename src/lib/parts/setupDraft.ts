/** A setup while it is being typed: pure. */
import type { LibraryComponent } from '$core/setups/component';
import { NO_SETUP, type Component, type Setup } from '$core/trial/design/setup';
import type { TypedSetup } from '$lib/server/rooms/setups/setupForm';

/** A setup as its rows are typed; features one a line: "Web fonts: on". */
export function typedSetup(setup: Setup | null): TypedSetup {
	const { components, features, effortHours } = setup ?? NO_SETUP;
	const lines = Object.entries(features).map(([feature, on]) => `${feature}: ${on ? 'on' : 'off'}`);
	return { components, features: lines.join('\n'), effortHours };
}

export function blankComponent(): Component {
	return { kind: 'plugin', name: '', version: '', tier: 'unknown', monthlyCost: null, jobs: [], settings: '' };
}

/** A component of the library in one of its tiers, as a setup offers it. */
export interface Offer {
	text: string;
	component: Component;
}

const MONTHS_A_YEAR = 12;

/** One for each tier; one without a price where none is written down. The settings are those of its first file. */
export function offersOf(library: readonly LibraryComponent[]): Offer[] {
	return library.flatMap(({ kind, name, versions, prices, jobs, settings }) => {
		const shared = {
			...blankComponent(),
			kind,
			name,
			jobs,
			version: versions.at(-1) ?? '',
			settings: settings[0]?.text ?? ''
		};
		if (!prices.length) return [{ text: name, component: shared }];
		return prices.map(({ tier, price, per }): Offer => ({
			text: `${name}, ${tier}`,
			component: {
				...shared,
				tier: price > 0 ? 'paid' : 'free',
				monthlyCost: per === 'year' ? price / MONTHS_A_YEAR : price
			}
		}));
	});
}
