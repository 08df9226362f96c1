/** A report with its figures filled in, as of now. */
import { isTrialBlock, type Block, type BlockOf, type ReportDraft, type TrialBlockKind } from '$core/report/document';
import { fillIn } from '$core/report/richText';
import type { AgencyView, BlockBody, BlockView, ReportView } from '$core/report/view';
import { reportWordsIn } from '$core/wording/reportWords';
import type { Language } from '$core/wording/words';
import type { Db } from '../../base/db/connection';
import { agencyOf } from './queries/agency';
import { hasLogo } from './agency';
import { Material } from './material';
import { auditBlock, sideBlock, worklistBlock } from './resolve/auditBlocks';
import { loadParts } from './resolve/loadBlock';
import {
	claimsBlock,
	disclosureBlock,
	fieldBlock,
	outsideBlock,
	recommendationsBlock,
	worksheetBlock
} from './resolve/listBlocks';
import { standingBlock, watchBlock } from './resolve/watchBlocks';
import { periodBlock } from './resolve/periodBlock';
import { brokeBlock, methodBlock, weightBlock, whyBlock, worthBlock } from './resolve/proseBlocks';
import {
	answerBlock,
	appendixBlock,
	stepsBlock,
	boardBlock,
	estimationBlock,
	framesBlock,
	scoreBlock,
	type TrialBlock
} from './resolve/trialBlocks';
import { findClient } from '../clients/view';

const OF_TRIALS: Record<TrialBlockKind, TrialBlock> = {
	answer: answerBlock,
	score: scoreBlock,
	board: boardBlock,
	estimation: estimationBlock,
	frames: framesBlock,
	why: whyBlock,
	weight: weightBlock,
	broke: brokeBlock,
	worth: worthBlock,
	method: methodBlock,
	steps: stepsBlock,
	appendix: appendixBlock
};

export interface Resolved {
	view: ReportView;
	material: Material;
}

/** @param stamp under the title: the version and its day, or that it is a draft; in the report's language */
export function resolveReport(
	db: Db,
	{ clientId, draft }: { clientId: number | null; draft: ReportDraft },
	stamp?: { number: number; day: string }
): Resolved {
	const words = reportWordsIn(draft.language);
	const material = new Material(db, words, clientId);
	const client = clientId === null ? null : findClient(db, clientId);
	const agency = agencyView(db, client?.reportColour ?? '', draft.language);
	const clientName = client?.reportName || client?.name || '';
	return {
		material,
		view: {
			title: draft.title,
			language: draft.language,
			client: clientName,
			agency,
			labels: {
				better: words.say('board.better'),
				inside: words.say('board.within'),
				worse: words.say('board.worse'),
				metric: words.say('report.metric'),
				verdict: words.say('report.verdict'),
				stamp: stamp ? words.say('report.stamp', stamp) : words.say('report.stamp.draft'),
				contents: words.say('report.contents'),
				preparedFor: clientName ? words.say('report.for', { client: clientName }) : '',
				by: agency.name ? words.say('report.by', { agency: agency.name }) : ''
			},
			blocks: draft.blocks.flatMap((block) => viewsOf(material, draft, block))
		}
	};
}

/** A block as it is shown; one of a load as its parts, each under a heading of its own. */
function viewsOf(material: Material, draft: ReportDraft, block: Block): BlockView[] {
	const { words } = material;
	const first = {
		id: block.id,
		from: block.kind,
		heading: block.heading || words.say(`report.block.${block.kind}`),
		words: fillIn(block.words, (ref) => material.figure(ref))
	};
	if (block.kind !== 'load') return [{ ...first, body: bodyOf(material, draft, block) }];
	return loadParts(material, block).map(({ name, body }) =>
		name === 'figures'
			? { ...first, body }
			: { id: `${block.id}-${name}`, from: block.kind, heading: words.say(`report.load.${name}`), words: [], body }
	);
}

function bodyOf(material: Material, draft: ReportDraft, block: Exclude<Block, BlockOf<'load'>>): BlockBody {
	if (isTrialBlock(block)) {
		const trial = material.trial(block.trial);
		if (!trial) return { kind: 'missing', why: material.words.say('report.missing.trial') };
		return OF_TRIALS[block.kind](material, trial);
	}
	switch (block.kind) {
		case 'text':
			return { kind: 'text' };
		case 'field':
			return fieldBlock(material, block);
		case 'recommendations':
			return recommendationsBlock(material, block);
		case 'outside':
			return outsideBlock(material, block);
		case 'claims':
			return claimsBlock(material, block);
		case 'worksheet':
			return worksheetBlock(material, block);
		case 'period':
			return periodBlock(material, block);
		case 'watch':
			return watchBlock(material, block.watch);
		case 'standing':
			return standingBlock(material, block.watch);
		case 'audit':
			return auditBlock(material, block.audit);
		case 'side':
			return sideBlock(material, block.audit);
		case 'worklist':
			return worklistBlock(material);
		case 'disclosure':
			return disclosureBlock(material, draft.disclosure);
	}
}

function agencyView(db: Db, clientColour: string, language: Language): AgencyView {
	const { name, contact, accent, standing, standingEs } = agencyOf(db);
	const own = language === 'es' ? standingEs : standing;
	return { name, contact, accent: clientColour || accent, standing: own, logo: hasLogo(db) ? 'logo' : null };
}
