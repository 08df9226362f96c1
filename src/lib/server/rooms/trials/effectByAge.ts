/** The effect of a change by its age: what a trial and its repeats found, on one axis. */
import type { MetricId } from '$core/metrics/catalogue';
import type { BoardRow } from '$core/wording/board';
import { formatAge } from '$core/wording/format';
import { ENGLISH } from '$core/wording/words';
import type { Db } from '../../base/db/connection';
import { boardsOf } from './boardView';
import { judgementForList } from './judgement';
import { lateSeenOf } from './queries/lateView';
import { putOffFrom } from './lateView';
import { repeatsOf } from './queries/trials';
import { findTrial, type Trial } from './trial';

/** One variant under one set of conditions, at all ages. */
export interface AgedEffect {
	key: string;
	/** "With Larder, Phone" */
	label: string;
	arm: string;
	baseline: string;
	/** Of each metric a row an age, youngest first. */
	metrics: { metric: MetricId; name: string; rows: BoardRow[] }[];
}

interface Aged {
	trial: Trial;
	/** "at first", "1 day later" */
	words: string;
}

/** When it began, or shall begin. UTC ISO. */
export const startOf = ({ startedAt, design, createdAt }: Trial) => startedAt ?? design.notBefore ?? createdAt;

/** How long after the end of the first one it began: by then its change had become so old. Null for the first one. */
export function ageOf(trial: Trial, origin: Trial | null): string | null {
	if (!origin?.endedAt || origin.id === trial.id) return null;
	const ms = Date.parse(startOf(trial)) - Date.parse(origin.endedAt);
	return ms > 0 ? formatAge(ms) : null;
}

/** Empty as long as fewer than two have ended. */
export function effectByAge(db: Db, trial: Trial): AgedEffect[] {
	const origin = findTrial(db, trial.repeatOf ?? trial.id);
	const ended = agesOf(db, origin);
	if (ended.length < 2) return [];
	const effects = new Map<string, AgedEffect>();
	for (const { trial: aged, words } of ended) addTo(effects, db, aged, words);
	return [...effects.values()].filter(({ metrics }) => metrics.some(({ rows }) => rows.length > 1));
}

function agesOf(db: Db, origin: Trial | null): Aged[] {
	if (!origin) return [];
	const ages = new Map<string, number>();
	return [origin, ...repeatsOf(db, origin.id).flatMap((id) => findTrial(db, id) ?? [])]
		.filter(({ status }) => status === 'done' || status === 'stopped')
		.sort((a, b) => startOf(a).localeCompare(startOf(b)))
		.map((own) => {
			const age = ageOf(own, origin);
			const said = age ? `${age} later` : 'at first';
			const nth = (ages.get(said) ?? 0) + 1;
			ages.set(said, nth);
			return { trial: own, words: nth === 1 ? said : `${said} (${nth})` };
		});
}

function addTo(effects: Map<string, AgedEffect>, db: Db, trial: Trial, words: string): void {
	const judgement = judgementForList(db, trial);
	if (!judgement) return;
	const putOff = putOffFrom(trial.design, lateSeenOf(db, trial.id));
	for (const { condition, name, answers } of boardsOf(trial.question, {
		design: trial.design,
		judgement,
		caveats: [],
		words: ENGLISH,
		putOffOf: putOff
	}))
		for (const { label, armName: arm, baselineName: baseline, rows } of answers) {
			const key = `${condition}/${label}`;
			const effect = effects.get(key) ?? { key, label: `${label}, ${name}`, arm, baseline, metrics: [] };
			effects.set(key, effect);
			for (const row of rows) {
				const own = effect.metrics.find(({ metric }) => metric === row.metric);
				const aged = { ...row, name: words };
				if (own) own.rows.push(aged);
				else effect.metrics.push({ metric: row.metric, name: row.name, rows: [aged] });
			}
		}
}
