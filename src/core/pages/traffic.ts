/** A traffic table from some program: which column says what, and what each line says of a page. */
import { normaliseAddress, isOfSite, pageKey } from './address';
import { decimalMarkOf, parseAmount, parseCount, type DecimalMark } from '../formats/amounts';

export const TRAFFIC_FIELDS = ['address', 'visits', 'conversions', 'revenue'] as const;
export type TrafficField = (typeof TRAFFIC_FIELDS)[number];
/** Places of the columns; null where the table has none. */
export type TrafficColumns = { address: number } & Record<Exclude<TrafficField, 'address'>, number | null>;

/** Names that such columns have, in English and Spanish (house). */
const NAMES: Record<TrafficField, RegExp> = {
	address: /\b(url|address|page|pages?|path|landing|location|direcci[oó]n|p[aá]gina|ruta)\b/i,
	visits: /\b(visits?|views?|sessions?|pageviews?|hits|entrances|visitas|vistas|sesiones)\b/i,
	conversions: /\b(conversions?|goals?|orders?|purchases?|bookings?|transactions?|conversiones|pedidos|compras)\b/i,
	revenue: /\b(revenue|sales|turnover|amount|income|value|ingresos|ventas|importe)\b/i
};

/** The columns that their names suggest; null when none looks like addresses. */
export function guessColumns(header: readonly string[]): TrafficColumns | null {
	const taken = new Set<number>();
	const find = (field: TrafficField): number | null => {
		const at = header.findIndex((name, i) => !taken.has(i) && NAMES[field].test(name));
		if (at < 0) return null;
		taken.add(at);
		return at;
	};
	// "Page views" is a count, "page" an address: the counts are looked for first.
	const [visits, conversions, revenue] = [find('visits'), find('conversions'), find('revenue')];
	const address = find('address');
	return address === null ? null : { address, visits, conversions, revenue };
}

export interface PageTraffic {
	url: string;
	visits: number;
	conversions: number | null;
	revenue: number | null;
}

export interface TrafficTable {
	/** Most visits first. */
	pages: PageTraffic[];
	/** Visits to pages of the site that are not in the list, because it would be too long. */
	restVisits: number;
	lines: number;
	/** Lines that were left aside, by why. */
	skipped: Record<'no-address' | 'foreign' | 'no-number', number>;
	/** Lines that name a page that another line had named. */
	joined: number;
}

export interface TrafficOptions {
	columns: TrafficColumns;
	/** Of the site: lines of others are left aside. The first stands before mere paths. */
	hosts: readonly string[];
	/** Of addresses that name none. */
	scheme?: 'https' | 'http';
	/** Where a column's values do not tell. */
	mark?: DecimalMark;
	/** Pages that are kept. */
	most?: number;
}

/** Most pages of a site that Zafra keeps. */
export const MOST_PAGES_KEPT = 50_000;
/** First lines by which a column's decimal mark is found out. */
const LOOKED_AT = 1000;

type ReadAddress = { url: string; key: string } | { fault: 'no-address' | 'foreign' };
/** Addresses that are kept as they were read. */
const MOST_REMEMBERED = 20_000;

/** Reads lines as they come; memory grows with the pages that are kept, not with the lines. */
export class TrafficReader {
	#kept = new Map<string, PageTraffic>();
	#restVisits = 0;
	#lines = 0;
	#joined = 0;
	#skipped = { 'no-address': 0, foreign: 0, 'no-number': 0 };
	#first: string[][] | null = [];
	#mark: DecimalMark;
	#read = new Map<string, ReadAddress>();
	readonly #most: number;

	constructor(private readonly options: TrafficOptions) {
		this.#mark = options.mark ?? '.';
		this.#most = options.most ?? MOST_PAGES_KEPT;
	}

	line(cells: readonly string[]): void {
		if (this.#first === null) return this.#take(cells);
		this.#first.push([...cells]);
		if (this.#first.length >= LOOKED_AT) this.#takeFirst();
	}

	/** All lines have come. */
	end(): TrafficTable {
		this.#takeFirst();
		this.#shrink(this.#most);
		const pages = [...this.#kept.values()].sort((a, b) => b.visits - a.visits || (a.url < b.url ? -1 : 1));
		return {
			pages,
			restVisits: this.#restVisits,
			lines: this.#lines,
			skipped: { ...this.#skipped },
			joined: this.#joined
		};
	}

	#takeFirst(): void {
		const first = this.#first ?? [];
		this.#first = null;
		const { conversions, revenue, visits } = this.options.columns;
		const numbers = [revenue, conversions, visits].filter((place) => place !== null);
		this.#mark = decimalMarkOf(
			numbers.flatMap((place) => first.map((cells) => cells[place] ?? '')),
			this.#mark
		);
		for (const cells of first) this.#take(cells);
	}

	#take(cells: readonly string[]): void {
		if (cells.length === 1 && cells[0]!.trim() === '') return;
		this.#lines++;
		const { columns } = this.options;
		const address = this.#addressOf((cells[columns.address] ?? '').trim());
		if ('fault' in address) {
			this.#skipped[address.fault]++;
			return;
		}
		const visits = columns.visits === null ? 0 : parseCount(cells[columns.visits] ?? '', this.#mark);
		if (visits === null || visits < 0) {
			this.#skipped['no-number']++;
			return;
		}
		const amount = (place: number | null) => (place === null ? null : parseAmount(cells[place] ?? '', this.#mark));
		this.#add(address.key, {
			url: address.url,
			visits,
			conversions: amount(columns.conversions),
			revenue: amount(columns.revenue)
		});
	}

	/** Reading an address is dear, and tables name each page many times: what was read is kept. */
	#addressOf(text: string): ReadAddress {
		const existing = this.#read.get(text);
		if (existing) return existing;
		const read = this.#readAddress(text);
		if (this.#read.size >= MOST_REMEMBERED) this.#read.clear();
		this.#read.set(text, read);
		return read;
	}

	/** Totals and headings have no address. */
	#readAddress(text: string): ReadAddress {
		const { hosts, scheme = 'https' } = this.options;
		const isBare = /^[\w-]+(\.[\w-]+)+(\/|$)/.test(text);
		if (!isBare && !/^(https?:\/\/|\/)/i.test(text)) return { fault: 'no-address' };
		const read = normaliseAddress(isBare ? `${scheme}://${text}` : text, `${scheme}://${hosts[0]}/`);
		if ('fault' in read) return { fault: 'no-address' };
		return isOfSite(read.url, hosts) ? { url: read.url, key: pageKey(read.url) } : { fault: 'foreign' };
	}

	#add(key: string, page: PageTraffic): void {
		const existing = this.#kept.get(key);
		if (existing) {
			this.#joined++;
			// The address that most visitors use is the page's.
			if (page.visits > existing.visits) existing.url = page.url;
			existing.visits += page.visits;
			existing.conversions = addUp(existing.conversions, page.conversions);
			existing.revenue = addUp(existing.revenue, page.revenue);
			return;
		}
		this.#kept.set(key, page);
		if (this.#kept.size >= this.#most * 2) this.#shrink(this.#most);
	}

	/** The quietest go; their visits stay counted. */
	#shrink(most: number): void {
		if (this.#kept.size <= most) return;
		const ordered = [...this.#kept].sort(([, a], [, b]) => b.visits - a.visits);
		for (const [key, { visits }] of ordered.slice(most)) {
			this.#restVisits += visits;
			this.#kept.delete(key);
		}
	}
}

function addUp(a: number | null, b: number | null): number | null {
	return a === null ? b : b === null ? a : a + b;
}
