/** Audits and the worklist as tables to take along. */
import { csvOf } from '$core/formats/csv';
import type { Db } from '../../base/db/connection';
import type { WorklistFilter } from './queries/findings';
import { listFindings } from './queries/findings';
import { AUDIT_METRICS, auditView } from './view';
import { worklistRow } from './worklistView';

/** One row a page and device: each metric with its range and band. */
export function auditCsv(db: Db, id: number): string {
	const view = auditView(db, id);
	const head = [
		'page',
		'conditions',
		'good_loads',
		'failed_loads',
		...AUDIT_METRICS.flatMap((metric) => [metric, `${metric}_least`, `${metric}_most`, `${metric}_band`]),
		'worst_metric',
		'heaviest_third_party',
		'findings',
		'field',
		'field_of'
	];
	const rows = view.pages.map((row) => [
		row.url,
		row.condition,
		row.good,
		row.failed,
		...AUDIT_METRICS.flatMap((metric) => {
			const level = row.metrics[metric];
			return level ? [level.middle, level.least, level.most, level.band] : [null, null, null, null];
		}),
		row.worst,
		row.heaviest,
		row.findings.filter(({ isUsual }) => isUsual).length,
		row.field?.assessment ?? null,
		row.field?.scope ?? null
	]);
	return csvOf(head, rows);
}

/** More lines than anybody takes along. */
const MOST = 20_000;

export function worklistCsv(db: Db, filter: WorklistFilter): string {
	const head = [
		'state',
		'rule',
		'what',
		'detail',
		'resource',
		'pages',
		'of_pages',
		'cost',
		'saving_bytes',
		'who',
		'effort',
		'advice',
		'done_when',
		'owner',
		'note',
		'question'
	];
	const rows = listFindings(db, filter, MOST).map((stored) => {
		const row = worklistRow(stored);
		return [
			row.state,
			row.rule,
			row.title,
			row.detail,
			row.resource.name,
			row.pages[0],
			row.pages[1],
			row.cost,
			row.saving?.bytes ?? null,
			row.who,
			row.effort,
			row.advice.join(' '),
			row.doneWhen,
			row.owner,
			row.note,
			row.question
		];
	});
	return csvOf(head, rows);
}

/** One issue text a finding, with evidence and limit: what a developer can be handed. */
export function findingMarkdown(row: ReturnType<typeof worklistRow>, origin: string): string {
	const steps = row.advice.map((step, i) => `${i + 1}. ${step}`);
	return [
		`# ${row.title}`,
		'',
		row.detail,
		'',
		`- Resource: \`${row.resource.name}\``,
		`- Seen ${row.reach}`,
		...(row.cost ? [`- Cost in the load: ${row.cost}`] : []),
		...(row.saving ? [`- Computed saving: ${row.saving.bytes} bytes`] : []),
		`- Who: ${row.who}, effort: ${row.effort}`,
		`- Evidence: ${origin}/loads/${row.load}`,
		'',
		'## What to do',
		'',
		...steps,
		'',
		'## Done when',
		'',
		row.doneWhen,
		...(row.question ? ['', '## Question', '', row.question] : []),
		''
	].join('\n');
}
