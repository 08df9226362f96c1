/** What blocks show of audits and of the worklist. */
import { metricOf } from '$core/metrics/catalogue';
import { RULES, type Finding } from '$core/findings/finding';
import type { BlockBody, TableView } from '$core/report/view';
import { boardName } from '$core/wording/board';
import { describeFinding, describeReach, wordEffort, wordHeadCheck, wordMender } from '$core/wording/findings';
import { localNumber } from '$core/wording/localNumber';
import { wordShortDay, wordUnit } from '$core/wording/report';
import { conditionsIn, findingWordsIn } from '$core/wording/reportWords';
import { AUDIT_METRICS, auditView, costWords, findAudit, openLines, type AuditView } from '../../audits/view';
import type { Material } from '../material';

/** What fits on paper, ranges and all. */
const PRINTED = AUDIT_METRICS.filter((metric) => metric !== 'fcp' && metric !== 'requests');
/** Lines that a client reads; more are for the list itself. */
const MOST_LINES = 40;
/** Findings of one load, dearest first. */
const MOST_FINDINGS = 12;
/** Elements that are named of a side check. */
const MOST_PLACES = 2;

const missing = ({ words }: Material): BlockBody => ({ kind: 'missing', why: words.say('report.missing.audit') });

/** Null for one that is gone, is under way, or belongs to another client. */
function ownAudit({ db, clientId }: Material, id: number): AuditView | null {
	const audit = findAudit(db, id);
	if (!audit || audit.clientId !== clientId) return null;
	const view = auditView(db, id);
	return view.isLookedAt ? view : null;
}

const pathOf = (url: string) => (new URL(url).pathname === '/' ? new URL(url).host : new URL(url).pathname);

export function auditBlock(material: Material, id: number): BlockBody {
	const { words } = material;
	const audit = ownAudit(material, id);
	if (!audit) return missing(material);
	const about = words.say('report.audit.about', {
		day: wordShortDay(audit.createdAt.slice(0, 10), words.language),
		loads: audit.loadsEach
	});
	const moveOn = audit.moveOn.length
		? words.say('report.audit.move-on', { pages: words.list(audit.moveOn.map(pathOf)) })
		: '';
	const tables = audit.conditions.map((condition) => tableOf(material, audit, condition));
	return { kind: 'tables', tables, about: [about, moveOn].filter(Boolean).join(' ') };
}

function tableOf({ words }: Material, audit: AuditView, { id, name }: AuditView['conditions'][number]): TableView {
	const rows = audit.pages.filter(({ condition }) => condition === id);
	const metrics = PRINTED.filter((metric) => rows.some((row) => row.metrics[metric]));
	const hasField = rows.some(({ field }) => field);
	return {
		title: conditionsIn(words, name),
		head: [
			words.say('report.field.page'),
			...metrics.map((metric) => boardName(metric, words)),
			...(hasField ? [words.say('report.audit.visitors')] : [])
		],
		rows: rows.map((row) => ({
			cells: [
				pathOf(row.url),
				...metrics.map((metric) => {
					const level = row.metrics[metric];
					if (!level) return '–';
					const told = (value: number) => wordUnit(metricOf(metric).unit, value, words);
					const [middle, least, most] = [level.middle, level.least, level.most].map(told);
					return least === most ? middle! : `${middle} (${words.say('range.span', { least: least!, most: most! })})`;
				}),
				...(hasField ? [row.field ? words.say(`report.field.state.short.${row.field.assessment}`) : '–'] : [])
			]
		}))
	};
}

export function sideBlock(material: Material, id: number): BlockBody {
	const { words } = material;
	const audit = ownAudit(material, id);
	if (!audit) return missing(material);
	if (!audit.side.length) return { kind: 'missing', why: words.say('report.missing.items'), isEmpty: true };
	const findingWords = findingWordsIn(words.language);
	const table: TableView = {
		title: '',
		head: (['check', 'pages', 'where'] as const).map((key) => words.say(`report.side.${key}`)),
		rows: audit.side.map(({ kind, check, help, on, where }) => ({
			cells: [
				kind === 'head' ? wordHeadCheck(check, findingWords) : help,
				words.say('report.side.pages.of', { k: on[0], m: on[1] }),
				where.slice(0, MOST_PLACES).join(' · ')
			]
		}))
	};
	return { kind: 'tables', tables: [table], about: words.say('report.side.about') };
}

type Items = Extract<BlockBody, { kind: 'recommendations' }>['items'];

export function worklistBlock(material: Material): BlockBody {
	const { db, clientId, words } = material;
	if (clientId === null) return { kind: 'missing', why: words.say('report.missing.client') };
	const lines = openLines(db, clientId, MOST_LINES);
	if (!lines.length) return { kind: 'missing', why: words.say('report.missing.items'), isEmpty: true };
	const findingWords = findingWordsIn(words.language);
	return {
		kind: 'recommendations',
		items: lines.map(({ cause, state, question, note }) => {
			const item = itemOf(material, { ...cause.example.finding, saving: cause.saving }, costWords(cause));
			return {
				...item,
				facts: [
					{
						name: words.say('report.line.reach'),
						text: localNumber(describeReach(cause, findingWords), words.language)
					},
					...item.facts,
					{ name: words.say('report.line.state'), text: words.say(`report.line.state.${state}`) },
					...(note ? [{ name: words.say('report.line.note'), text: note }] : []),
					...(question ? [{ name: words.say('report.line.question'), text: question }] : [])
				]
			};
		})
	};
}

type Told = Pick<Finding, 'rule' | 'resource' | 'values' | 'limit' | 'saving'>;

/** @param cost as it is told */
function itemOf({ words }: Material, finding: Told, cost: string): Items[number] {
	const findingWords = findingWordsIn(words.language);
	const { who, effort } = RULES[finding.rule];
	const { title, detail, advice, doneWhen } = describeFinding(finding, findingWords);
	const told = (text: string) => localNumber(text, words.language);
	const saved = finding.saving?.bytes ? wordUnit('bytes', finding.saving.bytes, words) : '';
	const facts = [
		[words.say('report.line.resource'), finding.resource.name],
		[words.say('report.line.cost'), told(cost)],
		[words.say('report.line.saving'), saved && words.say('report.line.saving.bytes', { bytes: saved })],
		[words.say('report.rec.who'), `${wordMender(who, findingWords)}, ${wordEffort(effort, findingWords)}`],
		[words.say('report.line.advice'), advice.join(' ')],
		[words.say('report.rec.check'), told(doneWhen)]
	] as const;
	return {
		what: `${told(title)}. ${told(detail)}`,
		facts: facts.flatMap(([name, text]) => (text ? [{ name, text }] : []))
	};
}

/** What one load shows to be mended, dearest first. */
export function findingItems(material: Material, findings: readonly Finding[]): Items {
	const sizeOf = ({ cost }: Finding) => (cost.bytes ?? 0) / 10_000 + (cost.threadMs ?? 0) / 50;
	return [...findings]
		.sort((a, b) => sizeOf(b) - sizeOf(a))
		.slice(0, MOST_FINDINGS)
		.map((finding) => itemOf(material, finding, costWords(finding.cost)));
}
