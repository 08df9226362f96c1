/** A log of steps as it is kept: the next step, what became of one, the end. */
import * as v from 'valibot';
import { PresenceChecks } from '$core/trial/design/presence';
import { awaitsReturn, isLog, MOST_STEPS, STEP_DECISIONS } from '$core/trial/design/log';
import { stagesOf } from '$core/trial/design/comparisons';
import type { TrialArm } from '$core/trial/types';
import type { Db } from '../../base/db/connection';
import { NotPossible } from '../../base/refusal';
import { existingTrial, startTrial } from './commands';
import { insertMarker } from './queries/notes';
import { lastStage } from './queries/slots';
import { appendArm, setDecision, setTrialStatus } from './queries/trials';
import type { Trial } from './trial';

export const NewStep = v.object({
	/** What was changed. */
	words: v.pipe(
		v.string('Say what was changed.'),
		v.trim(),
		v.maxLength(300, 'A step is described in at most 300 characters.')
	),
	/** It takes the step before it back, and is measured to see that the page is where it was. */
	takesBack: v.optional(v.boolean('“takesBack” is true or false.'), false),
	fileName: v.optional(v.nullable(v.pipe(v.string(), v.maxLength(200))), null),
	file: v.optional(v.nullable(v.string('The settings file is sent as text.')), null),
	/** What must be there, or gone, in its loads. */
	checks: v.optional(PresenceChecks, [])
});
export type NewStep = v.InferOutput<typeof NewStep>;

export const Decision = v.object({
	decision: v.picklist(STEP_DECISIONS, 'The decision is “kept”, “weakened”, “taken-back” or “open”.'),
	note: v.optional(
		v.nullable(v.pipe(v.string(), v.trim(), v.maxLength(500, 'A note has at most 500 characters.'))),
		null
	)
});
export type Decision = v.InferOutput<typeof Decision>;

const NAME_LENGTH = 80;

function existingLog(db: Db, id: number): Trial {
	const trial = existingTrial(db, id);
	if (!isLog(trial.design)) throw new NotPossible(409, 'This trial is no log of steps.');
	return trial;
}

/** Write the next step down and measure it. @returns the number of its stage */
export function addStep(db: Db, id: number, step: NewStep): number {
	return db
		.transaction(() => {
			const trial = existingLog(db, id);
			checkNext(db, trial, step);
			const stages = stagesOf(trial.design);
			const stage = stages.length;
			const undone = awaitsReturn(trial.design);
			const words = step.words || `“${undone?.name}” taken back`;
			appendArm(db, id, { ...stepArm(stages, words.slice(0, NAME_LENGTH), undone), checks: step.checks });
			insertMarker(db, id, { stage, words, fileName: step.fileName, file: step.file });
			// One that was ended goes on.
			if (trial.status === 'done') setTrialStatus(db, id, 'waiting');
			startTrial(db, id, stage);
			return stage;
		})
		.immediate();
}

function checkNext(db: Db, { id, status, design }: Trial, { words, takesBack }: NewStep): void {
	if (status === 'draft') throw new NotPossible(409, 'The page is measured as it is first: start the log.');
	if (status !== 'waiting' && status !== 'done')
		throw new NotPossible(409, 'The step before is not measured yet: let it end, or go on with it.');
	const stages = stagesOf(design);
	const next = stages[lastStage(db, id) + 1];
	if (next) throw new NotPossible(409, `“${next.name}” was written down before and comes first: start it.`);
	if (stages.length > MOST_STEPS)
		throw new NotPossible(409, `A log holds ${MOST_STEPS} steps. Begin another with the page as it is now.`);
	const undone = awaitsReturn(design);
	if (undone && !takesBack)
		throw new NotPossible(
			409,
			`“${undone.name}” was taken back: measure the page without it first, so that the next step is compared with what is there.`,
			'takesBack'
		);
	if (!undone && takesBack) throw new NotPossible(409, 'The step before was not taken back.', 'takesBack');
	if (!undone && !words) throw new NotPossible(422, 'Say what was changed.', 'words');
	if (stages.some(({ name }) => name.toLowerCase() === words.slice(0, NAME_LENGTH).toLowerCase()))
		throw new NotPossible(422, 'A step before has the same words: say what is different this time.', 'words');
}

/** The same page by the same visitor; a step that takes one back runs on what the page ran on before that one. */
function stepArm(stages: readonly TrialArm[], name: string, undone: TrialArm | null): Omit<TrialArm, 'id'> {
	const before = undone ? stages[stages.indexOf(undone) - 1]! : stages.at(-1)!;
	const { id: _id, decision: _decision, decisionNote: _note, ...like } = before;
	return { ...like, name, baseline: false, reference: false, undoes: undone?.id ?? null };
}

/** What became of a step, and why. */
export function decideStep(db: Db, id: number, stage: number, { decision, note }: Decision): void {
	db.transaction(() => {
		const { design } = existingLog(db, id);
		const stages = stagesOf(design);
		const step = stage > 0 ? stages[stage] : undefined;
		if (!step || stage > lastStage(db, id)) throw new NotPossible(404, `This log has no measured step ${stage}.`);
		const isLast = stage === stages.length - 1;
		if (!isLast && (decision === 'taken-back' || step.decision === 'taken-back') && decision !== step.decision)
			throw new NotPossible(
				409,
				'Later steps were measured on top of this one: what is done about it now is a step of its own.',
				'decision'
			);
		if (decision === 'taken-back' && step.undoes != null)
			throw new NotPossible(409, 'This step is itself the taking back of another one.', 'decision');
		setDecision(db, step.id, decision, note || null);
	}).immediate();
}

/** No further steps: the log is done. A next step takes it up again. */
export function endLog(db: Db, id: number): void {
	db.transaction(() => {
		const { status } = existingLog(db, id);
		if (status === 'done') return;
		if (status !== 'waiting') throw new NotPossible(409, 'A step of this log is not measured yet.');
		setTrialStatus(db, id, 'done');
	}).immediate();
}
