/**
 * Histograms of one page, device and hour as bytes: they are written for each hour, so that they must be small. Numbers
 * are LEB128 varints (DWARF 5, section 7.6), signed ones folded by zigzag; bins are written as distances.
 */
import type { Histogram } from './histogram';

/** By number of the metric. */
export type Histograms = Map<number, Map<number, number>>;

const VERSION = 1;

export function packHistograms(histograms: ReadonlyMap<number, Histogram>): Uint8Array {
	const bytes: number[] = [VERSION];
	writeNumber(bytes, histograms.size);
	for (const [metric, histogram] of [...histograms].sort(([a], [b]) => a - b)) {
		const bins = [...histogram].filter(([, weight]) => weight > 0).sort(([a], [b]) => a - b);
		writeNumber(bytes, metric);
		writeNumber(bytes, bins.length);
		let last = 0;
		for (const [bin, weight] of bins) {
			writeNumber(bytes, zigzag(bin - last));
			writeNumber(bytes, weight);
			last = bin;
		}
	}
	return Uint8Array.from(bytes);
}

/** @throws Error for bytes of another version, or that end too early */
export function unpackHistograms(bytes: Uint8Array): Histograms {
	if (bytes[0] !== VERSION) throw new Error(`These histograms are of version ${bytes[0]}, not ${VERSION}.`);
	let at = 1;
	const read = () => {
		let value = 0;
		for (let scale = 1; ; scale *= 128) {
			const byte = bytes[at++];
			if (byte === undefined) throw new Error('These histograms end too early.');
			value += (byte & 0x7f) * scale;
			if (byte < 0x80) return value;
		}
	};
	const all: Histograms = new Map();
	for (let metrics = read(); metrics > 0; metrics--) {
		const histogram = new Map<number, number>();
		const metric = read();
		let bin = 0;
		for (let bins = read(); bins > 0; bins--) {
			bin += unzigzag(read());
			histogram.set(bin, read());
		}
		all.set(metric, histogram);
	}
	return all;
}

function writeNumber(bytes: number[], value: number): void {
	if (!Number.isSafeInteger(value) || value < 0) throw new Error(`A histogram counts whole page views, not ${value}.`);
	let rest = value;
	for (; rest >= 128; rest = Math.floor(rest / 128)) bytes.push((rest % 128) | 0x80);
	bytes.push(rest);
}

const zigzag = (value: number) => (value < 0 ? -2 * value - 1 : 2 * value);
const unzigzag = (value: number) => (value % 2 === 1 ? -(value + 1) / 2 : value / 2);

/** Add one set of histograms to another, in place. @param sign -1 to take away what was added */
export function addHistograms(into: Histograms, other: ReadonlyMap<number, Histogram>, sign: 1 | -1 = 1): void {
	for (const [metric, histogram] of other) {
		const own = into.get(metric) ?? new Map<number, number>();
		into.set(metric, own);
		for (const [bin, weight] of histogram) {
			const left = (own.get(bin) ?? 0) + sign * weight;
			if (left > 0) own.set(bin, left);
			else own.delete(bin);
		}
	}
}
