/**
 * Whether collecting changes what it measures: full against bare, interleaved, on a heavy page of the simulated web and
 * on a page with as much style as a page builder's, as a desktop and as a phone.
 */
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { BUILT_IN_CONDITIONS } from '$core/load/conditions/conditions';
import { parseHostMap } from '$core/load/requests/hostMap';
import type { MetricId } from '$core/metrics/catalogue';
import { median } from '$core/stats/summary';
import { pairedShift } from '$core/stats/signedRank';
import { Lab } from '../src/lab/lab';
import type { Collects } from '../src/lab/loadOptions';
import { startDemoWeb } from '../test/support/world';
import { percent, printTable, type Row } from './table';

const ROUNDS = Number(process.env.BENCH_ROUNDS ?? 20);
const METRICS: MetricId[] = ['ttfb', 'fcp', 'lcp', 'dcl', 'onload', 'full', 'tbt'];
const WAYS: readonly Collects[] = ['full', 'bare'];
const RULES = 4000;
const ELEMENTS = 600;

/** 300 kB of style, of which a tenth matches: what a page builder with its themes sends. */
function styledSite() {
	const rule = (i: number) =>
		`.part-${i} > .in, .part-${i}:hover .in { margin: ${i % 7}px; color: rgb(9 9 ${i % 255}) }`;
	const sheet = Array.from({ length: RULES }, (_, i) => rule(i)).join('\n');
	const part = (i: number) => `<div class="part-${i % (RULES / 10)}"><p class="in">Word ${i}</p></div>`;
	const page = `<!doctype html><html lang="en"><title>Styled</title><link rel="stylesheet" href="/look.css"><body>${Array.from(
		{ length: ELEMENTS },
		(_, i) => part(i)
	).join('')}`;
	return createServer((request, response) => {
		const isSheet = request.url === '/look.css';
		response.writeHead(200, { 'content-type': isSheet ? 'text/css' : 'text/html' }).end(isSheet ? sheet : page);
	});
}

const web = await startDemoWeb();
const styled = styledSite().listen(0, '127.0.0.1');
await new Promise((resolve) => styled.once('listening', resolve));
const hostMap = [...parseHostMap(`styled.test=127.0.0.1:${(styled.address() as AddressInfo).port}`), ...web.rules];
const labs = Object.fromEntries(
	WAYS.map((collects) => [collects, new Lab({ hostMap, trustedKeys: [web.keyHash], collects })])
) as Record<Collects, Lab>;

const URLS = (process.env.BENCH_URLS ?? 'https://northsound-crossings.test/,http://styled.test/').split(',');
for (const url of URLS)
	for (const conditions of BUILT_IN_CONDITIONS) {
		const rows: Record<Collects, Record<string, number | null>>[] = [];
		for (let round = -1; round < ROUNDS; round++) {
			const pair = {} as Record<Collects, Record<string, number | null>>;
			for (const collects of round % 2 ? WAYS : [...WAYS].reverse())
				pair[collects] = (await labs[collects].measure({ url, conditions, steps: [] })).record.figures;
			if (round >= 0) rows.push(pair);
		}
		printTable(
			`Collecting in full against bare: shift over ${rows.length} rounds of ${url}, ${conditions.name} (95 % interval)`,
			METRICS.flatMap((metric) => rowOf(metric, rows) ?? [])
		);
	}
await Promise.all(Object.values(labs).map((lab) => lab.close()));
styled.close();
web.close();

function rowOf(metric: MetricId, rows: readonly Record<Collects, Record<string, number | null>>[]): Row | null {
	const values = rows.flatMap(({ bare, full }) => {
		const [without, withAll] = [bare[metric] ?? null, full[metric] ?? null];
		return without === null || withAll === null ? [] : [[without, withAll] as const];
	});
	if (!values.length) return null;
	if (metric === 'tbt') {
		const { estimate, low, high } = pairedShift(values.map(([bare, full]) => full - bare));
		const most = Math.max(3, 0.03 * median(values.map(([bare]) => bare)));
		return {
			what: metric,
			measured: `${estimate.toFixed(0)} ms (${low.toFixed(0)} to ${high.toFixed(0)})`,
			limit: `within ${most.toFixed(0)} ms`,
			holds: Math.abs(estimate) <= most
		};
	}
	const { estimate, low, high } = pairedShift(values.map(([bare, full]) => Math.log(full / bare)));
	return {
		what: metric,
		measured: `${percent(Math.expm1(estimate))} (${percent(Math.expm1(low))} to ${percent(Math.expm1(high))})`,
		limit: 'within 3 %',
		holds: Math.abs(Math.expm1(estimate)) <= 0.03
	};
}
