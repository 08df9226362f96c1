/**
 * What the rules for a calm machine are worth: loads of a static page with and without them (no gate, mark or rest),
 * interleaved, while another process burns one core in random bursts; then on the machine as it is. And whether the
 * rule is blind to the page.
 */
import { deviation } from 'd3-array';
import sharp from 'sharp';
import { execFileSync } from 'node:child_process';
import { BUILT_IN_CONDITIONS, type Conditions } from '$core/load/conditions/conditions';
import { CALM_LIMITS } from '$core/load/vitals/calm';
import type { LoadRecord } from '$core/load/record/record';
import { mean, median } from '$core/stats/summary';
import { SpeedBook } from '../src/lab/browser/cpu';
import { launchBrowser } from '../src/lab/browser/launch';
import { CalmWatch } from '../src/lab/calm/watch';
import { Lab } from '../src/lab/lab';
import { prepare } from '../src/lab/prepare';
import { rule, serve, UNWATCHED } from '../test/support/world';
import { percent, printTable, type Row } from './table';

/** All of them without. */
const ONLY = process.env.BENCH_CONDITIONS?.split(',');
const MEASURED = BUILT_IN_CONDITIONS.filter(({ id }) => ONLY?.includes(id) ?? true);
const LOADS = Number(process.env.BENCH_LOADS ?? 30);
const BLIND = Number(process.env.BENCH_BLIND ?? 200);
const LEAST_GAIN = 3;
const MOST_IDLE: Record<string, number> = { phone: 0.1, desktop: 0.06 };
const MOST_COST_MS = 1000;

/** Burns one core for 50 to 800 ms, rests for 100 to 3,000, for ever. */
const BURSTS = `const rest = () => setTimeout(burn, 100 + Math.random() * 2900);
const burn = () => { const end = Date.now() + 50 + Math.random() * 750; while (Date.now() < end); rest(); };
burn();`;

/** Started by a shell that ends at once: it must be nobody's child, or its work would count as the lab's own. */
function startBursts(): { end(): void } {
	const pid = Number(execFileSync('sh', ['-c', '"$0" -e "$1" >/dev/null 2>&1 & echo $!', process.execPath, BURSTS]));
	const end = () => void process.kill(pid, 'SIGKILL');
	// A benchmark that fails must not leave it burning beside the next one.
	process.once('exit', end);
	return { end: () => (process.off('exit', end), end()) };
}

/** Of some 500 kB: on the desktop a lighter page paints so early that a frame of the screen is a tenth of its LCP. */
const noise = { type: 'gaussian', mean: 128, sigma: 60 } as const;
const picture = await sharp({ create: { width: 500, height: 330, channels: 3, background: 'teal', noise } })
	.png()
	.toBuffer();
const script = (ms: number) =>
	`<script>const end = performance.now() + ${ms}; while (performance.now() < end);</script>`;
const server = await serve((request, response) => {
	const { pathname } = new URL(request.url ?? '/', 'http://x');
	if (pathname.endsWith('.png')) return void response.writeHead(200, { 'content-type': 'image/png' }).end(picture);
	const isHeavy = pathname === '/heavy';
	response
		.writeHead(200, { 'content-type': 'text/html' })
		.end(
			`<!doctype html><title>x</title><h1>Timetable</h1><img src="/main.png" width=500 height=330>${'<p>Boats leave every hour.</p>'.repeat(isHeavy ? 400 : 40)}${script(isHeavy ? 250 : 20)}`
		);
});
const hostMap = [rule('*.test', server.port)];
const ruled = new Lab({ hostMap, calm: CALM_LIMITS });
const bare = new Lab({ hostMap, calm: UNWATCHED });
const book = new SpeedBook();
const rows: Row[] = [];
/** Coefficient of variation. */
const spread = (figures: readonly number[]) => deviation(figures)! / mean(figures);

const loadOnce = async (lab: Lab, conditions: Conditions, path = '/') =>
	(await lab.measure({ url: `http://page.test${path}`, conditions, steps: [] })).record;

/** As a trial does: a disturbed load is made again, at most twice. */
async function countedLoad(conditions: Conditions): Promise<{ record: LoadRecord | null; tries: number }> {
	for (let tries = 1; tries <= 3; tries++) {
		const record = await loadOnce(ruled, conditions);
		if (!record.environment.calm!.disturbed) return { record, tries };
	}
	return { record: null, tries: 3 };
}

for (const conditions of MEASURED) {
	for (const lab of [ruled, bare]) await loadOnce(lab, conditions);
	const lcp: { ours: number; theirs: number }[] = [];
	for (const where of ['beside bursts', 'machine idle'] as const) {
		const bursts = where === 'beside bursts' ? startBursts() : null;
		const [with_, without]: [LoadRecord[], LoadRecord[]] = [[], []];
		let tries = 0;
		for (let i = 0; i < LOADS; i++) {
			const counted = await countedLoad(conditions);
			tries += counted.tries;
			if (counted.record) with_.push(counted.record);
			without.push(await loadOnce(bare, conditions));
		}
		bursts?.end();
		for (const metric of ['fcp', 'lcp', 'ttfb'] as const) {
			const [ours, theirs] = [with_, without].map((all) => spread(all.map(({ figures }) => figures[metric]!)));
			if (metric === 'lcp') lcp.push({ ours: ours!, theirs: theirs! });
			const limit = metric !== 'lcp' ? null : bursts ? theirs! / LEAST_GAIN : MOST_IDLE[conditions.id]!;
			rows.push({
				what: `${conditions.name}, ${where}, ${metric.toUpperCase()}: variation with the rules / without (${with_.length} of ${LOADS} counted, ${tries} loads)`,
				measured: `${percent(ours!)} / ${percent(theirs!)}`,
				limit: limit === null ? undefined : `at most ${percent(limit)}`,
				holds: limit === null ? undefined : ours! <= limit
			});
		}
	}
	// Variances add up: what this machine scatters by itself is in both.
	const [busy, idle] = lcp as [(typeof lcp)[0], (typeof lcp)[0]];
	const added = (all: number) => Math.sqrt(Math.max(0, all ** 2 - idle.ours ** 2));
	const [ours, theirs] = [added(busy.ours), added(busy.theirs)];
	rows.push({
		what: `${conditions.name}, LCP: what the bursts add to the idle machine's variation, with the rules / without`,
		measured: `${percent(ours)} / ${percent(theirs)}`,
		limit: `at most ${percent(theirs / LEAST_GAIN)}`,
		// Bursts that add nothing show nothing.
		holds: theirs > 0 && ours <= theirs / LEAST_GAIN
	});
}

for (const { name, device } of MEASURED) {
	const times: number[] = [];
	const running = await launchBrowser();
	const watch = new CalmWatch();
	const never = new Promise<never>(() => undefined);
	for (let i = 0; i < LOADS; i++) {
		watch.start();
		const context = await running.browser.newContext();
		const session = await context.newCDPSession(await context.newPage());
		const begun = performance.now();
		await prepare({ session, targetSpeed: device.targetSpeed, book, watch, limits: CALM_LIMITS, ended: never });
		times.push(performance.now() - begun);
		await watch.stop();
		await context.close();
	}
	await watch.close();
	await running.close();
	rows.push({
		what: `${name}: rest, gate and readings before a load, when calm`,
		measured: `${median(times).toFixed(0)} ms`,
		limit: `at most ${MOST_COST_MS} ms`,
		holds: median(times) <= MOST_COST_MS
	});
}

/** Loads of fresh browsers one after the other: whether the first is slower than the rest, and whether they drift. */
const BROWSERS = Number(process.env.BENCH_BROWSERS ?? 6);
const LOADS_EACH = 12;
const MOST_TREND = 0.03;
for (const conditions of BROWSERS ? MEASURED : []) {
	const lcp: Record<'warmed' | 'cold', number[][]> = { warmed: [], cold: [] };
	for (let i = 0; i < BROWSERS; i++)
		for (const kind of ['warmed', 'cold'] as const) {
			const lab = new Lab({ hostMap, calm: CALM_LIMITS, warmUrl: kind === 'warmed' ? 'http://page.test/' : null });
			const figures: number[] = [];
			for (let load = 0; load < LOADS_EACH; load++) figures.push((await loadOnce(lab, conditions)).figures.lcp!);
			await lab.close();
			lcp[kind].push(figures);
		}
	for (const kind of ['warmed', 'cold'] as const) {
		const firsts = mean(lcp[kind].map(([first]) => first!));
		const rest = lcp[kind].map((own) => own.slice(1));
		const first = firsts / mean(rest.flat()) - 1;
		const half = Math.floor(rest[0]!.length / 2);
		const trend = mean(rest.flatMap((own) => own.slice(-half))) / mean(rest.flatMap((own) => own.slice(0, half))) - 1;
		// Of a mean of so many firsts, by how the loads of a browser scatter.
		const error = mean(rest.map(spread)) / Math.sqrt(BROWSERS);
		rows.push({
			what: `${conditions.name}, ${BROWSERS} fresh browsers of ${LOADS_EACH} loads, ${kind}, LCP: first load against the rest (± ${percent(error)}); last five against the five after the first`,
			measured: `${percent(first)}; ${percent(trend)}`,
			limit: kind === 'warmed' ? `within ${percent(MOST_TREND)}` : undefined,
			holds: kind === 'warmed' ? Math.abs(first) <= MOST_TREND && Math.abs(trend) <= MOST_TREND : undefined
		});
	}
}

if (BLIND > 0) {
	const bursts = startBursts();
	const disturbed = { '/': 0, '/heavy': 0 };
	for (let i = 0; i < BLIND / 2; i++)
		for (const path of ['/', '/heavy'] as const)
			disturbed[path] += Number((await loadOnce(ruled, BUILT_IN_CONDITIONS[1]!, path)).environment.calm!.disturbed);
	bursts.end();
	const [light, heavy] = [disturbed['/'] / (BLIND / 2), disturbed['/heavy'] / (BLIND / 2)];
	const both = (light + heavy) / 2;
	// Two standard errors of the difference of two shares.
	const chance = 2 * Math.sqrt((both * (1 - both) * 2) / (BLIND / 2));
	rows.push({
		what: `blind to the page: disturbed loads of a light and a heavy page, ${BLIND / 2} each`,
		measured: `${percent(light)} and ${percent(heavy)}`,
		limit: `differ by at most ${percent(chance)}, as chance would`,
		holds: Math.abs(light - heavy) <= chance
	});
}
await ruled.close();
await bare.close();
server.close();
printTable('Noise: with and without the rules for a calm machine', rows);
