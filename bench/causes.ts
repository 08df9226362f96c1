/** Real Chromium on the simulated web: A/A trials that must stay silent, and causes that must be found and named. */
import { describeCause } from '$core/wording/causes';
import { BUILT_IN_CONDITIONS } from '$core/load/conditions/conditions';
import type { LoadRecord } from '$core/load/record/record';
import type { MetricId } from '$core/metrics/catalogue';
import { digestLoad } from '$core/compare/digest';
import { judge } from '$core/trial/judge/judge';
import type { TrialDesign, TrialLoad } from '$core/trial/types';
import { explainShift } from '$core/compare/why';
import { Lab } from '../src/lab/lab';
import { seededRandom, shuffled } from '$core/stats/random';
import { formatDifference } from '$core/wording/format';
import { hostTimes } from '../demo-web/hosts';
import type { SiteState } from '../demo-web/state/switches';
import { startDemoWeb } from '../test/support/world';
import { printTable, type Row } from './table';

const ROUNDS = Number(process.env.BENCH_ROUNDS ?? 8);
const SAME = Number(process.env.BENCH_SAME ?? 20);
const [, desktop] = BUILT_IN_CONDITIONS;
const conditions = { ...desktop!, quietMs: 1000 };
const web = await startDemoWeb();
const lab = new Lab({
	hostMap: web.rules, // The shop's server lies far away, its CDN near: else a CDN could not help.
	hostTimes: [{ pattern: 'pellows-seed-house.test', dnsMs: 20, extraRoundTripMs: 120 }, ...hostTimes()],
	trustedKeys: [web.keyHash]
});
const rows: Row[] = [];
const random = seededRandom(5);

interface Arm {
	url: string;
	/** Switches of the host while this arm is loaded. */
	switches?: Partial<SiteState>;
	host?: string;
}

/** As a trial does: a disturbed load is made again, at most twice. */
async function calmLoad(url: string): Promise<LoadRecord> {
	for (let tries = 1; ; tries++) {
		const { record } = await lab.measure({ url, conditions, steps: [] });
		if (tries === 3 || !record.environment.calm?.disturbed) return record;
	}
}

async function trial(arms: [Arm, Arm], rounds: number, primary: MetricId[]) {
	const design: TrialDesign = {
		kind: 'side-by-side',
		arms: arms.map(({ url }, i) => ({ id: i + 1, name: `Arm ${i + 1}`, url, baseline: i === 0, reference: false })),
		conditions: [conditions],
		rounds,
		warmups: 1,
		seed: 3,
		primary
	};
	const loads: TrialLoad[] = [];
	const records: [LoadRecord, number][] = [];
	for (let round = 0; round <= rounds; round++)
		for (const armId of shuffled([1, 2], random)) {
			const arm = arms[armId - 1]!;
			if (arm.host && arm.switches) web.store.change(arm.host, arm.switches, 'published');
			const record = await calmLoad(arm.url);
			if (round === 0) continue;
			loads.push({
				id: loads.length + 1,
				armId,
				conditionId: 'desktop',
				stage: 0,
				round,
				warmup: false,
				status: record.status,
				disturbed: false,
				excluded: null,
				figures: record.figures
			});
			if (record.status === 'ok') records.push([record, armId]);
		}
	const digests = (armId: number) =>
		records
			.filter(([, id]) => id === armId)
			.map(([record], i) => digestLoad(record, { loadId: i, armId, conditionId: 'desktop', round: i }));
	return {
		judgement: judge({ ...design, looks: [{ rounds: design.rounds, spent: 0.04, by: 'plan' }] }, loads),
		why: explainShift(digests(1), digests(2)),
		records
	};
}
let called = 0;
let named = 0;
for (let i = 0; i < SAME; i++) {
	const url = 'https://bench.plainstem.test/';
	const { judgement } = await trial([{ url }, { url }], ROUNDS, ['score', 'lcp', 'cls', 'tbt', 'wire']);
	for (const result of judgement.results.filter((item) => item.primary)) {
		named++;
		if (['better', 'worse', 'slight'].includes(result.verdict)) called++;
	}
}
rows.push({
	what: `${SAME} A/A trials of ${ROUNDS} rounds, light page: primary metrics called different`,
	measured: `${called} of ${named}`,
	limit: 'at most 2 of 100',
	holds: called <= Math.ceil(named / 50)
});

const HOST = 'pellows-seed-house.test';
const SITE = `https://${HOST}/`;
const switched = (switches: Partial<SiteState>): Arm => ({ url: SITE, host: HOST, switches });
const at = (url: string): Arm => ({ url });
interface Cause {
	name: string;
	arms: [Arm, Arm];
	metric: MetricId;
	sign: 1 | -1;
	/** What must be named first. */
	subject: RegExp;
}
const CAUSES: Cause[] = [
	{
		name: 'chat added',
		arms: [switched({ chat: 'absent' }), switched({ chat: 'normal' })],
		metric: 'wire',
		sign: 1,
		subject: /parlour-bell/
	},
	{
		name: 'ads added',
		arms: [switched({ chat: 'absent', ads: 'absent' }), switched({ ads: 'normal' })],
		metric: 'wire',
		sign: 1,
		subject: /hoarding-row/
	},
	// A switch empties every cache: the cached arm is a host of its own.
	{
		name: 'page cache',
		arms: [at('https://skerry-line.test/'), at('https://with-larder.skerry-line.test/')],
		metric: 'ttfb',
		sign: -1,
		subject: /page cache|first byte/
	},
	{
		name: 'compression off',
		arms: [switched({ ads: 'absent', compression: true }), switched({ compression: false })],
		metric: 'wire',
		sign: 1,
		subject: /compression/
	},
	{
		name: 'images squeezed',
		arms: [switched({ compression: true, shrinkery: 'off' }), switched({ shrinkery: 'size' })],
		metric: 'wire',
		sign: -1,
		subject: /images/
	},
	{
		name: 'scripts held',
		arms: [switched({ shrinkery: 'off', hushbox: 'off' }), switched({ hushbox: 'files' })],
		metric: 'requests',
		sign: -1,
		subject: /scripts|main thread|stilewatch/
	},
	{
		name: 'CDN on',
		arms: [switched({ hushbox: 'off', cdn: false }), switched({ cdn: true })],
		metric: 'full',
		sign: -1,
		subject: /CDN/
	}
];
for (const { name, arms, metric, sign, subject } of CAUSES) {
	const { judgement, why } = await trial(arms, ROUNDS, [metric]);
	const result = judgement.results.find((item) => item.metric === metric)!;
	const first = why.causes[0];
	const right =
		Math.sign(result.shift?.estimate ?? 0) === sign && ['better', 'worse', 'slight'].includes(result.verdict);
	rows.push({
		what: `${name}: ${metric} ${result.verdict}, ${result.shift ? formatDifference(metric, result.shift.estimate) : '–'}`,
		measured: first ? describeCause(first) : 'no cause named',
		limit: `${sign > 0 ? 'more' : 'less'}; ${subject.source} first`,
		holds: right && subject.test(first?.subject ?? '')
	});
}
await lab.close();
web.close();
printTable('Causes and silence: real loads of the simulated web', rows);
process.exit();
