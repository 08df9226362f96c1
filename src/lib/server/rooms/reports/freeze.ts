/** Freezing: a numbered version with copies of all that its figures follow from. */
import { JUDGE_VERSION } from '$core/trial/judge/judge';
import { LAB_RECIPE } from '$core/metrics/score';
import { picturesIn, type FrozenReport, type ReportView } from '$core/report/view';
import { wordDay } from '$core/wording/report';
import { nowIso, type Db } from '../../base/db/connection';
import { NotPossible } from '../../base/refusal';
import { copyArtifact, type ArtifactOwner } from '../../base/storage/artifacts';
import { existingReport, insertVersion, listVersions } from './queries/reports';
import { resolveReport } from './resolve';

/**
 * @returns the version's number
 * @throws NotPossible while the disclosure is not said, or nothing is in the report
 */
export function freezeReport(db: Db, reportId: number): number {
	return db
		.transaction(() => {
			const report = existingReport(db, reportId);
			const { draft } = report;
			if (draft.disclosure.isPaid === null)
				throw new NotPossible(
					422,
					'Say whether anybody pays you for a recommendation: a report is not frozen without it.',
					'disclosure'
				);
			if (!draft.blocks.length) throw new NotPossible(422, 'The report is empty: add a block first.', 'blocks');
			const number = (listVersions(db, reportId)[0]?.number ?? 0) + 1;
			const frozenAt = nowIso();
			const { view: whole, material } = resolveReport(db, report, { number, day: wordDay(frozenAt, draft.language) });
			const view = withoutEmpty(whole);
			if (!view.blocks.length)
				throw new NotPossible(422, 'No block of this report has anything to say yet: fill one first.', 'blocks');
			const trials = material.evidence();
			const frozen: FrozenReport = {
				format: 1,
				number,
				frozenAt,
				rules: { judge: JUDGE_VERSION, recipe: LAB_RECIPE.version },
				view,
				trials,
				pictures: picturesIn(view)
			};
			const owner: ArtifactOwner = { kind: 'report', id: insertVersion(db, reportId, frozen) };
			for (const key of frozen.pictures) copyPicture(db, owner, key);
			for (const { loads } of trials)
				for (const { id } of loads)
					copyArtifact(db, { owner: { kind: 'load', id }, role: 'record' }, { owner, role: `record/${id}` });
			return number;
		})
		.immediate();
}

/** A client reads what there is, not what there is not. */
const withoutEmpty = (view: ReportView): ReportView => ({
	...view,
	blocks: view.blocks.filter(({ body }) => body.kind !== 'missing' || !body.isEmpty)
});

/** Equal bytes are kept once: a copy is one more use of them. */
function copyPicture(db: Db, owner: ArtifactOwner, key: string): void {
	if (key === 'logo')
		return copyArtifact(db, { owner: { kind: 'agency', id: 1 }, role: 'logo' }, { owner, role: 'picture/logo' });
	const [, load, position] = key.split('/');
	copyArtifact(
		db,
		{ owner: { kind: 'load', id: Number(load) }, role: 'frame', position: Number(position) },
		{ owner, role: `picture/${key}` }
	);
}
