/** The demonstration's reports: begun with its trials, frozen once the lab has worked their evidence out. */
import type { Block, ReportDraft } from '$core/report/document';
import { formatRef, type FigurePart } from '$core/report/figureRef';
import { richTextOf, type RichText } from '$core/report/richText';
import type { MetricId } from '$core/metrics/catalogue';
import { sql, type Db } from '../base/db/connection';
import { readFact, writeFact } from '../base/db/facts';
import { createReport, saveDraft } from '../rooms/reports/commands';
import { freezeReport } from '../rooms/reports/freeze';
import { findEvidence } from '../rooms/trials/evidence';
import { findTrial, type Trial } from '../rooms/trials/trial';
import { findClientByName } from '../rooms/clients/view';
import { agencyOf, saveAgency, existingReport, listVersions } from '../rooms/reports/view';

const BEGUN = 'demonstration reports';
const FROZEN = 'demonstration reports frozen';
const CLIENT = 'Skerry Line';
const CHAT = 'Did adding the chat make the timetable slower?';
const PLUGINS = 'Which plugin makes the home page faster?';

const trialOf = (db: Db, question: string) => {
	const row = sql<{ id: number }>(db, 'SELECT id FROM trial WHERE question = ? ORDER BY id LIMIT 1').get(question);
	return row ? findTrial(db, row.id) : null;
};

/** Once: what the analyst changed or deleted since stays so. */
export function beginDemoReports(db: Db): void {
	db.transaction(() => {
		if (readFact(db, BEGUN)) return;
		if (!agencyOf(db).name) saveAgency(db, AGENCY);
		const client = findClientByName(db, CLIENT);
		const [chat, plugins] = [trialOf(db, CHAT), trialOf(db, PLUGINS)];
		const ids = [
			chat && change(db, createReport(db, { ...NEW, trial: chat.id }), (draft) => chatReport(draft, chat)),
			client && change(db, createReport(db, { ...NEW, clientId: client, language: 'es', title: AUDIT }), auditReport)
		];
		if (plugins) createReport(db, { ...NEW, trial: plugins.id });
		writeFact(db, BEGUN, JSON.stringify(ids.filter(Boolean)));
	}).immediate();
}

const NEW = { trial: null, clientId: null, period: null, title: '', language: null };
const AUDIT = 'Tres páginas de Skerry Line: qué tienen sus visitantes';
const AGENCY = {
	name: 'Quillmere Digital',
	contact: 'Quillmere Digital · speed@quillmere.test',
	accent: '#5a4fa2',
	standingEs:
		'Las cifras sin intervalo son lecturas sueltas. Pídanos el paquete de pruebas: cada cifra se puede volver a calcular con él.',
	standing:
		'Figures without an interval are single readings. Ask us for the evidence bundle: every figure here can be computed anew from it.'
};

function change(db: Db, id: number, by: (draft: ReportDraft) => ReportDraft): number {
	const { draft, revision } = existingReport(db, id);
	saveDraft(db, id, by(draft), revision);
	return id;
}

/** @returns whether all that can be frozen is */
export function freezeDemoReports(db: Db): boolean {
	if (readFact(db, FROZEN)) return true;
	const ids = JSON.parse(readFact(db, BEGUN) ?? '[]') as number[];
	const chat = trialOf(db, CHAT);
	if (chat && findEvidence(db, chat.id)?.isOld !== false) return false;
	for (const id of ids) if (isThere(db, id) && !listVersions(db, id).length) freezeReport(db, id);
	writeFact(db, FROZEN, new Date().toISOString());
	return true;
}

export const trialsWithoutEvidence = (db: Db): number[] =>
	sql<{ id: number }>(db, "SELECT id FROM trial WHERE status IN ('waiting', 'done', 'stopped') ORDER BY id")
		.all()
		.map(({ id }) => id)
		.filter((id) => findEvidence(db, id)?.isOld !== false);

const isThere = (db: Db, id: number) => sql(db, 'SELECT 1 FROM report WHERE id = ?').get(id) !== undefined;

const withWords = (block: Block, words: RichText): Block => ({ ...block, words });

function chatReport(draft: ReportDraft, { id, design }: Trial): ReportDraft {
	const arm = design.arms.find(({ baseline }) => !baseline)!.id;
	const ref = (metric: MetricId, part: FigurePart) => formatRef({ trial: id, condition: 'phone', metric, arm, part });
	const figure = (metric: MetricId, part: FigurePart) => ({
		type: 'figure' as const,
		attrs: { ref: ref(metric, part) }
	});
	const text = (words: string) => ({ type: 'text' as const, text: words });
	const summary: RichText = {
		type: 'doc',
		content: [
			{
				type: 'paragraph',
				content: [
					text('On phones the timetable blocks for '),
					figure('tbt', 'baseline'),
					text(' without the chat and for '),
					figure('tbt', 'variant'),
					text(' with it. The verdict on blocking time is “'),
					figure('tbt', 'verdict'),
					text('”.')
				]
			}
		]
	};
	const blocks = draft.blocks.map((block): Block => {
		if (block.kind === 'answer') return withWords(block, summary);
		if (block.kind !== 'recommendations') return block;
		return {
			...block,
			items: [
				{
					what: 'Load the chat only when a visitor presses its button',
					who: 'Skerry Line, web team',
					gain: null,
					effort: 'small',
					check: 'No request to parlourbell.test before a press, seen in ten of ten loads'
				},
				{
					what: 'Decide whether the chat is needed on the timetable at all',
					who: 'Ines Harrow',
					gain: ref('tbt', 'shift'),
					effort: 'small',
					check: 'A line in the minutes'
				}
			]
		};
	});
	return { ...draft, disclosure: { isPaid: false, words: '' }, blocks };
}

/** The three most visited of the chosen pages. */
const AUDITED = 3;

function auditReport(draft: ReportDraft): ReportDraft {
	const pages = draft.blocks.flatMap((block) => (block.kind === 'field' ? block.pages : [])).slice(0, AUDITED);
	const blocks = draft.blocks.map((block): Block => {
		switch (block.kind) {
			case 'text':
				return withWords(
					block,
					richTextOf(
						'Este informe reúne lo que tuvieron los visitantes reales de tres páginas y qué conviene hacer con cada una.'
					)
				);
			case 'field':
				return { ...block, pages };
			case 'worksheet':
				return { ...block, lines: block.lines.filter(({ page }) => pages.includes(page)) };
			case 'recommendations':
				return {
					...block,
					items: [
						{
							what: 'Reservar el espacio de las imágenes de la portada',
							who: 'Quillmere Digital',
							gain: null,
							effort: 'small',
							check: 'El cambio de diseño no supera 0,1 en tres de cada cuatro visitas'
						}
					]
				};
			default:
				return block;
		}
	});
	return { ...draft, disclosure: { isPaid: false, words: '' }, blocks };
}
