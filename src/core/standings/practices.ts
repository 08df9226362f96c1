/** What pages do to be fast, and what they leave: one rule a practice, each with the evidence of a load. */
import type { LoadRecord, RequestRecord } from '../load/record/record';
import { cacheLifetimeOf, compressionOf, servedFrom } from '../load/requests/delivery';
import { ownerOf } from '../load/requests/owners';

export const PRACTICES = [
	'compression',
	'images',
	'lazy',
	'preload',
	'fonts',
	'caching',
	'cdn',
	'third-parties',
	'protocol',
	'scripts',
	'late'
] as const;
export type Practice = (typeof PRACTICES)[number];

export interface PracticeCell {
	practice: Practice;
	/** `none`: there is nothing to do it with, or it was not looked at. */
	state: 'yes' | 'partly' | 'no' | 'none';
	/** What the words need. */
	values: Record<string, string | number>;
	/** Addresses or names that show it, at most three. */
	evidence: string[];
	/** The load that shows it, where that is not the one in the middle. */
	load: number | null;
}

/** Ways of doing things that are told and never called better: what is put off still comes. */
export const NEUTRAL: readonly Practice[] = ['late'];

/** A load in which the lab waited on, or moved, once the page had settled. */
export interface LateLoad {
	id: number;
	record: LoadRecord;
}

interface Seen {
	record: LoadRecord;
	/** Went to the network while the page loaded, without failing. */
	requests: RequestRecord[];
	own: RequestRecord[];
	others: RequestRecord[];
	late: readonly LateLoad[];
}

type Rule = (seen: Seen) => Omit<PracticeCell, 'practice' | 'load'> & { load?: number };

const MOST_EVIDENCE = 3;
const nothing = { state: 'none' as const, values: {}, evidence: [] };

/** @param good how many of all do it */
function shareOf(good: number, all: number): PracticeCell['state'] {
	if (all === 0) return 'none';
	return good === all ? 'yes' : good === 0 ? 'no' : 'partly';
}

const addressesOf = (requests: readonly RequestRecord[]) => requests.slice(0, MOST_EVIDENCE).map(({ url }) => url);

/** Text of 1 kB and more under a content coding (RFC 9110, section 8.4). */
const compression: Rule = ({ own }) => {
	const texts = own.filter((request) => compressionOf(request).expected);
	const packed = texts.filter((request) => compressionOf(request).encoding !== null);
	const codings = [...new Set(packed.map((request) => compressionOf(request).encoding!))].sort();
	const left = texts.filter((request) => !packed.includes(request));
	const evidence = addressesOf(left.length ? left : packed);
	const values = { good: packed.length, all: texts.length, codings: codings.join(', ') || 'none' };
	return { state: shareOf(packed.length, texts.length), values, evidence };
};

const MODERN = /^image\/(avif|webp|jxl|svg)/;

/** Pictures in formats that need fewer bytes than JPEG and PNG. */
const images: Rule = ({ requests }) => {
	const pictures = requests.filter(({ mimeType }) => mimeType?.startsWith('image/'));
	const modern = pictures.filter(({ mimeType }) => MODERN.test(mimeType!));
	const formats = [...new Set(pictures.map(({ mimeType }) => mimeType!.replace(/^image\/([a-z]+).*$/, '$1')))].sort();
	const left = pictures.filter((picture) => !modern.includes(picture));
	return {
		state: shareOf(modern.length, pictures.length),
		values: { good: modern.length, all: pictures.length, formats: formats.join(', ') },
		evidence: addressesOf(left.length ? left : modern)
	};
};

/** Pictures below the first screen that wait until they are near (HTML, "loading" attribute). */
const lazy: Rule = ({ record }) => {
	const below = (record.page?.images ?? []).filter(({ inView }) => !inView);
	const waiting = below.filter((image) => image.lazy);
	const left = below.filter((image) => !image.lazy);
	const shown = left.length ? left : waiting;
	return {
		state: shareOf(waiting.length, below.length),
		values: { good: waiting.length, all: below.length },
		evidence: shown.slice(0, MOST_EVIDENCE).map(({ url, selector }) => url || selector)
	};
};

/** Files that are asked for before the parser meets them (W3C Preload). */
const preload: Rule = ({ requests }) => {
	const early = requests.filter(({ initiatorType }) => initiatorType === 'preload');
	return { state: early.length ? 'yes' : 'no', values: { good: early.length }, evidence: addressesOf(early) };
};

const SHOWS_TEXT = ['swap', 'fallback', 'optional'];

/** Text is shown before its font has come (CSS Fonts 4, "font-display"). */
const fonts: Rule = ({ record }) => {
	const loaded = (record.page?.fonts ?? []).filter(({ status }) => status === 'loaded');
	const good = loaded.filter(({ display }) => SHOWS_TEXT.includes(display));
	const left = loaded.filter((font) => !good.includes(font));
	return {
		state: shareOf(good.length, loaded.length),
		values: { good: good.length, all: loaded.length },
		evidence: (left.length ? left : good).slice(0, MOST_EVIDENCE).map(({ family, display }) => `${family}: ${display}`)
	};
};

const WEEK_S = 604_800;
const STATIC = ['script', 'stylesheet', 'image', 'font'];

/** Own files that a browser may keep for a week and more (RFC 9111). */
const caching: Rule = ({ own }) => {
	const files = own.filter(({ type }) => STATIC.includes(type));
	const kept = files.filter((file) => (cacheLifetimeOf(file).seconds ?? 0) >= WEEK_S);
	const left = files.filter((file) => !kept.includes(file));
	return {
		state: shareOf(kept.length, files.length),
		values: { good: kept.length, all: files.length },
		evidence: addressesOf(left.length ? left : kept)
	};
};

/** Files from the site's CDN, or answered by a shared cache, wherever that stands. */
const cdn: Rule = ({ record, own }) => {
	const { host } = new URL(record.finalUrl || record.url);
	const near = own.filter((request) => ownerOf(request.host, host).kind === 'own-cdn' || servedFrom(request) === 'hit');
	const hosts = [...new Set(near.map((request) => request.host))];
	return {
		state: near.length ? 'yes' : 'no',
		values: { good: near.length, all: own.length },
		evidence: hosts.slice(0, MOST_EVIDENCE)
	};
};

/** How many outside services the page asks. Fewer is not always better: it is what others do without. */
const thirdParties: Rule = ({ record, others }) => {
	const { host } = new URL(record.finalUrl || record.url);
	const owners = [...new Set(others.map((request) => ownerOf(request.host, host).name))];
	const bytes = others.reduce((sum, { wireBytes }) => sum + (wireBytes ?? 0), 0);
	return {
		state: owners.length ? 'no' : 'yes',
		values: { services: owners.length, bytes },
		evidence: owners.slice(0, MOST_EVIDENCE)
	};
};

const MULTIPLEXED = ['h2', 'h3', 'http/2', 'http/3'];

/** HTTP/2 (RFC 9113) or HTTP/3 (RFC 9114) for the document. */
const protocol: Rule = ({ requests }) => {
	const document = requests.find(({ type }) => type === 'document');
	if (!document?.protocol) return nothing;
	const isModern = MULTIPLEXED.includes(document.protocol.toLowerCase());
	return { state: isModern ? 'yes' : 'no', values: { protocol: document.protocol }, evidence: [document.url] };
};

/** Scripts that do not hold up the first paint. */
const scripts: Rule = ({ requests }) => {
	const all = requests.filter(({ type }) => type === 'script');
	const blocking = all.filter(({ renderBlocking }) => renderBlocking === 'blocking');
	return {
		state: shareOf(all.length - blocking.length, all.length),
		values: { good: all.length - blocking.length, all: all.length },
		evidence: addressesOf(blocking.length ? blocking : all)
	};
};

/** Scripts that come only after the page had settled: by themselves (postponed), or once somebody moves (held back). */
const late: Rule = ({ late: loads }) => {
	if (!loads.length) return nothing;
	const scripts = loads.flatMap(({ id, record: { requests, postponed, heldBack } }) => {
		const phase = postponed ? 'patience' : heldBack ? 'nudge' : null;
		return requests
			.filter(({ during, type, failed }) => during === phase && type === 'script' && failed === null)
			.map((request) => ({ request, phase, id }));
	});
	const count = (kind: 'patience' | 'nudge') => scripts.filter(({ phase }) => phase === kind).length;
	return {
		state: scripts.length ? 'yes' : 'no',
		values: { all: scripts.length, heldBack: count('nudge'), postponed: count('patience') },
		evidence: addressesOf(scripts.map(({ request }) => request)),
		load: scripts[0]?.id ?? loads[0]!.id
	};
};

const RULES: Record<Practice, Rule> = {
	compression,
	images,
	lazy,
	preload,
	fonts,
	caching,
	cdn,
	'third-parties': thirdParties,
	protocol,
	scripts,
	late
};

/**
 * @param record of a load that succeeded; the middle one of a run
 * @param late of the same page; none where nobody looked
 */
export function practicesOf(record: LoadRecord, late: readonly LateLoad[] = []): PracticeCell[] {
	const { host } = new URL(record.finalUrl || record.url);
	const requests = record.requests.filter(({ during, failed }) => during === 'load' && failed === null);
	const own = requests.filter((request) => ownerOf(request.host, host).kind !== 'third-party');
	const others = requests.filter((request) => !own.includes(request));
	const seen: Seen = { record, requests, own, others, late };
	return PRACTICES.map((practice) => ({ practice, load: null, ...RULES[practice](seen) }));
}
