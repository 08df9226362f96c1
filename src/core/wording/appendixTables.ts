/** The table of all loads of a trial, with the figures that it decides on. */
import { metricOf } from '../metrics/catalogue';
import { countedLoads } from '../trial/judge/counted';
import type { TrialDesign, TrialLoad } from '../trial/types';
import { boardName } from './board';
import { wordUnit } from './report';
import type { ReportWords } from './reportWords';
import type { TableView } from '../report/view';

type Load = TrialLoad & { startedAt: string };

export function appendixTables(design: TrialDesign, loads: readonly Load[], words: ReportWords): TableView[] {
	const counted = new Set<Load>(countedLoads(design, loads));
	const armName = (id: number) => design.arms.find((arm) => arm.id === id)?.name ?? '';
	const head = ['round', 'variant', 'started', 'counted'] as const;
	const state = (load: Load) => {
		if (load.status === 'failed') return words.say('report.loads.failed');
		if (load.excluded !== null) return words.say('report.loads.excluded', { reason: load.excluded });
		return words.say(counted.has(load) ? 'report.loads.yes' : 'report.loads.disturbed');
	};
	const figureOf = (load: Load, metric: TrialDesign['primary'][number]) => {
		const value = load.figures[metric];
		return value === null || value === undefined ? '–' : wordUnit(metricOf(metric).unit, value, words);
	};
	return design.conditions.map(({ id, name }) => ({
		title: name,
		head: [
			...head.map((key) => words.say(`report.loads.${key}`)),
			...design.primary.map((metric) => boardName(metric, words))
		],
		rows: loads
			.filter(({ conditionId, warmup }) => conditionId === id && !warmup)
			.map((load) => ({
				cells: [
					String(load.round),
					armName(load.armId),
					load.startedAt.slice(0, 19).replace('T', ' '),
					state(load),
					...design.primary.map((metric) => figureOf(load, metric))
				]
			}))
	}));
}
