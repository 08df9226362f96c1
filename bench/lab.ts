/** What a load costs beyond the page's own settled time, and whether the lab's memory stays. */
import { BUILT_IN_CONDITIONS } from '$core/load/conditions/conditions';
import { median } from '$core/stats/summary';
import { Lab } from '../src/lab/lab';
import { startDemoWeb } from '../test/support/world';
import { percent, printTable, type Row } from './table';

const LOADS = Number(process.env.BENCH_LOADS ?? 100);
const [PHONE, DESKTOP] = BUILT_IN_CONDITIONS;
const web = await startDemoWeb();
const lab = new Lab({ hostMap: web.rules, trustedKeys: [web.keyHash] });
const beyond: Record<string, number[]> = { phone: [], desktop: [] };
const memory: number[] = [];
for (let i = 0; i < LOADS; i++) {
	const conditions = i % 2 ? PHONE! : DESKTOP!;
	const { record } = await lab.measure({ url: 'https://skerry-line.test/timetable', conditions, steps: [] });
	if (record.settledMs !== null) beyond[conditions.id]!.push(record.labMs - record.settledMs - conditions.quietMs);
	globalThis.gc?.();
	memory.push(process.memoryUsage().rss / 1e6);
}
await lab.close();
web.close();
const early = median(memory.slice(5, 15));
const late = median(memory.slice(-10));
const rows: Row[] = Object.entries(beyond).map(([id, costs]) => ({
	what: `${id}: beyond settled time and the quiet that proves it`,
	measured: `${median(costs).toFixed(0)} ms`,
	limit: 'at most 1,200 ms',
	holds: median(costs) <= 1200
}));
rows.push({
	what: `memory after ${LOADS} loads against after 10`,
	measured: `${late.toFixed(0)} MB against ${early.toFixed(0)} MB (${percent(late / early - 1)})`,
	limit: 'within 20 %',
	holds: late / early <= 1.2
});
printTable('Lab: cost of a load (median)', rows);
