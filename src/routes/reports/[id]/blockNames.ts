/** Blocks of a report as the analyst knows them, in the order in which a report usually has them. */
import { TRIAL_BLOCKS, type Block, type BlockKind } from '$core/report/document';
import { NO_WORDS } from '$core/report/richText';

export const BLOCK_NAMES: Record<BlockKind, string> = {
	text: 'Words of your own',
	answer: 'Answer',
	board: 'Shift board',
	steps: 'Steps',
	score: 'Score, by metric',
	estimation: 'Every load',
	frames: 'Frames side by side',
	why: 'Why',
	weight: 'Page weight',
	broke: 'Did anything break',
	worth: 'Is it worth it',
	field: 'Field data',
	period: 'What happened',
	watch: 'Over time',
	standing: 'Against competitors',
	worksheet: 'Audit worksheet',
	recommendations: 'Recommendations',
	outside: 'Figures from elsewhere',
	claims: 'Claims',
	method: 'Method',
	load: 'One load',
	audit: 'Audit: where each page stands',
	worklist: 'Worklist',
	side: 'Audit: beside speed',
	disclosure: 'Disclosure',
	appendix: 'All loads'
};

export const isOfTrial = (kind: BlockKind) => (TRIAL_BLOCKS as readonly string[]).includes(kind);

/** A new block of a kind. @param id free in its report */
export function newBlock(
	kind: BlockKind,
	id: string,
	trial: number | null,
	known: Partial<Record<'watch' | 'standing' | 'audit' | 'load', number>>
): Block | null {
	const bare = { id, heading: '', words: NO_WORDS };
	switch (kind) {
		case 'text':
		case 'worklist':
		case 'disclosure':
			return { ...bare, kind };
		case 'field':
			return { ...bare, kind, pages: [] };
		case 'period':
			return { ...bare, kind, from: daysAgo(28), until: daysAgo(0) };
		case 'worksheet':
			return { ...bare, kind, lines: [] };
		case 'recommendations':
		case 'claims':
			return { ...bare, kind, items: [] };
		case 'outside':
			return { ...bare, kind, trial, items: [] };
		case 'watch':
		case 'standing':
			return known[kind] === undefined ? null : { ...bare, kind, watch: known[kind] };
		case 'audit':
		case 'side':
			return known.audit === undefined ? null : { ...bare, kind, audit: known.audit };
		case 'load':
			return known.load === undefined ? null : { ...bare, kind, load: known.load };
		default:
			return trial === null ? null : { ...bare, kind, trial };
	}
}

const DAY_MS = 86_400_000;
const daysAgo = (days: number) => new Date(Date.now() - days * DAY_MS).toISOString().slice(0, 10);
