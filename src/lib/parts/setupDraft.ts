/** A setup while it is being typed: pure. */
import type { LibraryComponent } from '$core/setups/component';
import { NO_SETUP, type Component, type Setup } from '$core/trial/design/setup';

/** One feature a line, as it is typed: "Web fonts: on". */
export function featureLines(setup: Setup | null): string {
	return Object.entries(setup?.features ?? {})
		.map(([feature, on]) => `${feature}: ${on ? 'on' : 'off'}`)
		.join('\n');
}

/** A feature named without a state is on. */
function featuresFrom(lines: string): Record<string, boolean> {
	const typed = lines.split('\n').map((line) => line.split(':').map((part) => part.trim()));
	return Object.fromEntries(
		typed.filter(([feature]) => feature).map(([feature, state = 'on']) => [feature, !/^(off|no|false|0)$/i.test(state)])
	);
}

/** Components without a name are not there yet. */
export function setupFrom(components: readonly Component[], features: string, effortHours: number | null): Setup {
	return {
		...NO_SETUP,
		components: components.filter(({ name }) => name.trim()),
		features: featuresFrom(features),
		effortHours
	};
}

export function isEmptySetup({ components, features, effortHours }: Setup): boolean {
	return components.length === 0 && Object.keys(features).length === 0 && effortHours === null;
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
		const known = {
			...blankComponent(),
			kind,
			name,
			jobs,
			version: versions.at(-1) ?? '',
			settings: settings[0]?.text ?? ''
		};
		if (!prices.length) return [{ text: name, component: known }];
		return prices.map(({ tier, price, per }): Offer => ({
			text: `${name}, ${tier}`,
			component: {
				...known,
				tier: price > 0 ? 'paid' : 'free',
				monthlyCost: per === 'year' ? price / MONTHS_A_YEAR : price
			}
		}));
	});
}
