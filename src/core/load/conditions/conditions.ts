/** How a page is loaded. Conditions are plain records, frozen into a trial when it is made. */
import { BROWSER_SWITCHES } from './browserSwitches';
import { placeOf } from './places';

export interface DeviceConditions {
	/** Viewport in CSS pixels. */
	width: number;
	height: number;
	pixelRatio: number;
	touch: boolean;
	mobile: boolean;
	/**
	 * Speed to reach, in rounds of the lab's calibration loop per ms; null leaves the machine as it is.
	 * A speed and not a multiplier, so that a phone means the same on every machine.
	 */
	targetSpeed: number | null;
	userAgent: string | null;
}

export interface NetworkConditions {
	/** Round trip in ms; half of it is spent each way. */
	roundTripMs: number;
	/** Link rates in kbit/s (1000 bit), shared by all connections. */
	downKbps: number;
	upKbps: number;
	/** Time of a first look-up of each host, ms. */
	dnsMs: number;
}

export interface Conditions {
	/** Key in URLs and the API: `phone`, `desktop`. */
	id: string;
	/** As printed: "Phone", "Desktop". */
	name: string;
	/** One sentence for the client. */
	summary: string;
	device: DeviceConditions;
	network: NetworkConditions;
	/** Id of the place the load comes from: its round trip is added to the network's. */
	place: string;
	/** `repeat` measures the second visit in the same profile. */
	cache: 'first' | 'repeat';
	/** `nudge` moves the pointer, scrolls and presses a key once the page has settled. */
	input: 'none' | 'nudge';
	/** Requests that never leave: patterns of addresses, `*` stands for anything. */
	block: string[];
	/** Sent with every request to the page's own site, and to the hosts named beside each. */
	headers: SecretHeader[];
	/** Set for the page's own host before the load. */
	cookies: NameValue[];
	/**
	 * Host rules that go before the operator's, in the form of ZAFRA_HOST_MAP; hosts of this machine only when the
	 * operator allows them.
	 */
	hostMap: string;
	/** Answer to HTTP authentication of the page's host. */
	authentication: { username: string; password: string } | null;
	/** Longest time a load may take until it counts as capped, ms. */
	capMs: number;
	/** How long the page must be quiet to count as settled, ms. */
	quietMs: number;
	/** What the browser is started with: of frozen conditions, since it was written down. */
	switches?: readonly string[];
	/**
	 * When it is asked which style matched: once the page has settled, of frozen conditions since then. Before, it was
	 * asked while the page loaded, which held up the first paint of pages with much style.
	 */
	styleAsked?: 'settled';
}

export interface NameValue {
	name: string;
	value: string;
}

export interface SecretHeader extends NameValue {
	/** Hosts beyond the page's own site (registrable domain) that get it too. */
	hosts?: string[];
}

/** How this lab measures, of which nobody chooses: part of frozen conditions. */
export const WAY_OF_MEASURING = { switches: BROWSER_SWITCHES, styleAsked: 'settled' } satisfies Partial<Conditions>;

/** Stands for a value that is stored and not shown; as a value of a form it means "as it was". */
export const NOT_SHOWN = '(saved, not shown)';
/** How records of earlier versions say it. */
const BLOTTED = [NOT_SHOWN, '(kept secret)'];

/** Of a load of which nothing particular is asked; conditions from before a field existed had it in its place. */
export const USUAL = {
	place: 'near',
	cache: 'first',
	input: 'none',
	block: [],
	headers: [],
	cookies: [],
	hostMap: '',
	authentication: null
} satisfies Partial<Conditions>;

/** Conditions as they are stored, with what older ones leave out. */
export function completeConditions(
	stored: Partial<Conditions> & Pick<Conditions, 'id' | 'name' | 'device' | 'network'>
): Conditions {
	return { summary: '', capMs: 45_000, quietMs: 2000, ...USUAL, ...stored };
}

/** As it is written into a record or shown: with the secrets blotted out, without what the record says itself. */
export function withoutSecrets(conditions: Conditions): Conditions {
	const blot = <Pair extends NameValue>(values: Pair[]) => values.map((pair) => ({ ...pair, value: NOT_SHOWN }));
	const { authentication, switches: _switches, styleAsked: _styleAsked, ...rest } = conditions;
	return {
		...rest,
		headers: blot(conditions.headers),
		cookies: blot(conditions.cookies),
		authentication: authentication && { ...authentication, password: NOT_SHOWN }
	};
}

/**
 * Conditions as they were typed, with each value that was not written anew taken from the stored ones.
 * @throws Error in words when there is no such stored value
 */
export function withStoredSecrets(typed: Conditions, stored: Conditions | null): Conditions {
	const fill = <Pair extends NameValue>(values: Pair[], array: readonly NameValue[], what: string) =>
		values.map((pair) => (pair.value === NOT_SHOWN ? { ...pair, value: storedValue(pair.name, array, what) } : pair));
	const { authentication } = typed;
	const password = authentication?.password === NOT_SHOWN ? stored?.authentication?.password : authentication?.password;
	if (authentication && password === undefined) throw new Error('Write the password anew: none is stored.');
	return {
		...typed,
		headers: fill(typed.headers, stored?.headers ?? [], 'header'),
		cookies: fill(typed.cookies, stored?.cookies ?? [], 'cookie'),
		authentication: authentication && { ...authentication, password: password! }
	};
}

function storedValue(name: string, stored: readonly NameValue[], what: string): string {
	const found = stored.find((pair) => pair.name.toLowerCase() === name.toLowerCase());
	if (!found) throw new Error(`Write the value of the ${what} ${name} anew: none is stored under this name.`);
	return found.value;
}

/** Whether the page is asked as somebody who is known: what comes then is for nobody else. */
export const hasSecrets = ({ headers, cookies, authentication }: Conditions): boolean =>
	authentication !== null || headers.length > 0 || cookies.length > 0;

/** Whether any secret is missing, as in the conditions of a record. */
export function lacksSecrets({ headers, cookies, authentication }: Conditions): boolean {
	const values = [...headers, ...cookies].map(({ value }) => value);
	return [...values, authentication?.password ?? ''].some((value) => BLOTTED.includes(value));
}

const PHONE: Conditions = {
	id: 'phone',
	name: 'Phone',
	summary: 'A mid-range phone on mobile broadband',
	device: {
		width: 384,
		height: 810,
		pixelRatio: 2.5,
		touch: true,
		mobile: true,
		targetSpeed: 45,
		userAgent:
			'Mozilla/5.0 (Linux; Android 14; ZafraPhone) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/{major}.0.0.0 Mobile Safari/537.36'
	},
	network: { roundTripMs: 110, downKbps: 8000, upKbps: 2400, dnsMs: 0 },
	...USUAL,
	capMs: 45_000,
	quietMs: 2000
};

const DESKTOP: Conditions = {
	id: 'desktop',
	name: 'Desktop',
	summary: 'An office desktop on cable',
	device: { width: 1420, height: 800, pixelRatio: 1, touch: false, mobile: false, targetSpeed: null, userAgent: null },
	network: { roundTripMs: 30, downKbps: 40_000, upKbps: 10_000, dnsMs: 0 },
	...USUAL,
	capMs: 45_000,
	quietMs: 2000
};

/** The conditions that ship with Zafra (house). */
export const BUILT_IN_CONDITIONS: readonly Conditions[] = [PHONE, DESKTOP];

/** Round trip of the line and the place together, ms. */
export function roundTripOf({ network, place }: Conditions): number {
	return network.roundTripMs + placeOf(place).extraRoundTripMs;
}

/** One line that says all that matters: viewport, network, CPU, and whatever is unusual. */
export function describeConditions(conditions: Conditions): string {
	const { device, network } = conditions;
	const mbit = (kbps: number) => String(Number((kbps / 1000).toFixed(1)));
	const cpu = device.targetSpeed === null ? 'CPU of the machine' : `CPU held to ${device.targetSpeed} loops/ms`;
	const place = placeOf(conditions.place);
	const parts = [
		`${device.width} × ${device.height}, ${device.pixelRatio}×${device.touch ? ', touch' : ''}`,
		`${roundTripOf(conditions)} ms round trip, ${mbit(network.downKbps)}/${mbit(network.upKbps)} Mbit/s${place.extraRoundTripMs ? `, from ${place.name}` : ''}`,
		cpu
	];
	if (conditions.cache === 'repeat') parts.push('repeat visit');
	if (conditions.input === 'nudge') parts.push('nudged after settling');
	if (conditions.block.length)
		parts.push(`${conditions.block.length} request ${conditions.block.length === 1 ? 'pattern' : 'patterns'} blocked`);
	if (conditions.headers.length)
		parts.push(`${conditions.headers.length} extra ${conditions.headers.length === 1 ? 'header' : 'headers'}`);
	if (conditions.cookies.length)
		parts.push(`${conditions.cookies.length} ${conditions.cookies.length === 1 ? 'cookie' : 'cookies'} set`);
	if (conditions.hostMap) parts.push('hosts sent elsewhere');
	if (conditions.authentication) parts.push('HTTP authentication');
	return parts.join('; ');
}
