/** All hosts of the simulated web. */
import { FERRIES } from './content/ferries';
import type { SiteModel } from './content/model';
import { OTHERS } from './content/others';
import { PARTY_HOSTS } from './parties/parties';
import { BUILDERS, DEFAULT_STATE, type BuilderName, type SiteState } from './state/switches';

export const SITES: readonly SiteModel[] = [...FERRIES, ...OTHERS];

/** The same site on a host of its own with something switched: arms that can be loaded side by side. */
export const VARIANTS: Record<string, { of: string; state: Partial<SiteState> }> = {
	'with-chat.skerry-line.test': { of: 'skerry-line.test', state: { chat: 'normal' } },
	'larder-chat.skerry-line.test': { of: 'skerry-line.test', state: { chat: 'normal', larder: 'pages-and-files' } },
	'later-chat.skerry-line.test': { of: 'skerry-line.test', state: { chat: 'later' } },
	'sniffing.skerry-line.test': { of: 'skerry-line.test', state: { chat: 'normal', sniffing: true } },
	'members.skerry-line.test': { of: 'skerry-line.test', state: { larder: 'pages-and-files', accounts: true } },
	'asks-first.skerry-line.test': { of: 'skerry-line.test', state: { consent: true, orders: true } },
	'by-island.skerry-line.test': { of: 'skerry-line.test', state: { byIsland: true } },
	'late-pictures.pellows-seed-house.test': { of: 'pellows-seed-house.test', state: { shrinkery: 'late' } },
	'cut-pictures.pellows-seed-house.test': { of: 'pellows-seed-house.test', state: { shrinkery: 'size' } },
	// What its visitors come to.
	'www.skerry-line.test': { of: 'skerry-line.test', state: { visits: true } },
	'with-ads.skerry-line.test': { of: 'skerry-line.test', state: { ads: 'normal' } },
	'with-larder.skerry-line.test': { of: 'skerry-line.test', state: { larder: 'pages-and-files' } },
	'hushed.skerry-line.test': { of: 'skerry-line.test', state: { chat: 'normal', hushbox: 'files' } }
};

const OWN_STATE: Record<string, Partial<SiteState>> = {
	'northsound-crossings.test': { builder: 'mortise', hosting: 'dedicated', cdn: true, counting: 'normal' },
	'puffin-ferries.test': { builder: 'plainstem', hosting: 'shared', larder: 'pages', shrinkery: 'format' },
	'pellows-seed-house.test': { builder: 'patchboard', hosting: 'shared', share: 'fold' },
	'orrery-hall.test': { builder: 'lathwork', hosting: 'virtual', fonts: 'normal', share: 'band' }
};

function siteState(site: SiteModel): SiteState {
	const bench = /^bench\.(\w+)\.test$/.exec(site.host)?.[1] as BuilderName | undefined;
	const forBench: Partial<SiteState> =
		bench && BUILDERS.includes(bench) ? { builder: bench, counting: 'absent', hosting: 'dedicated' } : {};
	return { ...DEFAULT_STATE, ...OWN_STATE[site.host], ...forBench };
}

/** Full state of each switchable host at the start. */
export function startingStates(): Map<string, SiteState> {
	const states = new Map(SITES.map((site) => [site.host, siteState(site)]));
	for (const [host, { of, state }] of Object.entries(VARIANTS)) states.set(host, { ...states.get(of)!, ...state });
	return states;
}

export const SPECIAL_HOSTS = ['switchboard.test', 'faults.test', 'truth.test', 'field-panel.test', 'address-book.test'];

/** Every name that the certificate must hold. */
export function allHosts(): string[] {
	const sites = [...startingStates().keys()];
	return [
		...sites,
		...sites.flatMap((host) => [`preview.${host}`, `cdn.${host}`]),
		...Object.values(PARTY_HOSTS),
		...SPECIAL_HOSTS
	];
}

/** What a look-up and a round trip cost beyond the line's own, ms: for the lab's shaper. */
export function hostTimes(): { pattern: string; dnsMs: number; extraRoundTripMs: number }[] {
	return [
		{ pattern: 'northsound-crossings.test', dnsMs: 12, extraRoundTripMs: 0 },
		{ pattern: 'puffin-ferries.test', dnsMs: 45, extraRoundTripMs: 20 },
		...Object.values(PARTY_HOSTS).map((pattern) => ({ pattern, dnsMs: 30, extraRoundTripMs: 15 }))
	];
}
