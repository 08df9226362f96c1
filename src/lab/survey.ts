/** Looking at a page once it has settled: what can be picked of it, and which checks of its markup hold. */
import { parsePageSurvey, READY_CAP_MS, MOST_READY, type ReadyProposal } from '$core/load/journey/survey';
import type { SurveyRecord } from '$core/load/journey/survey';
import type { Step } from '$core/load/journey/steps';
import type { Conditions } from '$core/load/conditions/conditions';
import { emptyJourney, runSteps } from './actions';
import { LoadFailure } from './failure';
import { wait, type Visit } from './visit';

export interface Surveyed {
	survey: SurveyRecord;
	/** WebP of the first screens of the page. */
	picture: Buffer | null;
	/** In step with the checks. */
	checkPictures: (Buffer | null)[];
}

/** After a press, for what counts to count. */
const COUNTING_MS = 1000;

/**
 * @param open a fresh tab of the same visitor at the same page; whoever asks for it closes it
 * @throws LoadFailure when the page no longer answers
 */
export async function surveyPage(visit: Visit, conditions: Conditions, open: () => Promise<Visit>): Promise<Surveyed> {
	await visit.world.addTools();
	const { proposals, ...seen } = parsePageSurvey(await visit.call('survey'));
	const picture = await visit.picture(seen.height);
	const checks: SurveyRecord['checks'] = [];
	const checkPictures: (Buffer | null)[] = [];
	for (const proposal of proposals.slice(0, MOST_READY)) {
		const { check, image } = await tryCheck(proposal, conditions, open);
		checks.push({ ...check, hasPicture: image !== null });
		checkPictures.push(image);
	}
	return { survey: { ...seen, checks }, picture, checkPictures };
}

type Tried = Omit<SurveyRecord['checks'][number], 'hasPicture'>;

/** In a tab of its own, so that one check does not stand in the way of the next. Nothing is sent. */
async function tryCheck(
	{ kind, label, steps, watches }: ReadyProposal,
	conditions: Conditions,
	open: () => Promise<Visit>
): Promise<{ check: Tried; image: Buffer | null }> {
	const check = { kind, label, steps };
	let visit: Visit | null = null;
	try {
		visit = await open();
		const deadline = performance.now() + READY_CAP_MS;
		await visit.navigate(deadline);
		await visit.quiet(deadline);
		await visit.world.addTools();
		const held = await visit.hold('sending');
		const tried = watches
			? await withCount(visit, { steps, watches, conditions })
			: { steps, problem: await problemOfSteps(visit, steps, conditions) };
		const image = await visit.picture();
		const [sent] = steps.some((step) => 'trySend' in step) ? [] : held.stopped;
		const message = sent ? `It would have sent ${sent}.` : tried.problem;
		return { check: { ...check, steps: tried.steps, status: message ? 'refused' : 'ok', message }, image };
	} catch (error) {
		const message = error instanceof LoadFailure ? error.reason.message : (error as Error).message;
		return { check: { ...check, status: 'refused', message }, image: null };
	} finally {
		await visit?.page.close().catch(() => undefined);
	}
}

async function problemOfSteps(visit: Visit, steps: readonly Step[], conditions: Conditions): Promise<string | null> {
	const journey = await runSteps(visit, steps, { ...conditions, capMs: READY_CAP_MS }, emptyJourney());
	return journey.steps.find(({ status }) => status === 'failed')?.message ?? null;
}

/** The press, and the words that it changed as what is expected of it. */
async function withCount(
	visit: Visit,
	{ steps, watches, conditions }: { steps: Step[]; watches: readonly string[]; conditions: Conditions }
): Promise<{ steps: Step[]; problem: string | null }> {
	const before = await visit.call('wordsAt', watches);
	const problem = await problemOfSteps(visit, steps, conditions);
	if (problem) return { steps, problem };
	await wait(COUNTING_MS);
	const after = await visit.call('wordsAt', watches);
	const changed = watches.findIndex((_, i) => after[i] !== before[i] && after[i] !== '');
	if (changed < 0) return { steps, problem: 'Nothing that counts has changed its words.' };
	const expected: Step = { expect: { selector: watches[changed]!, text: after[changed]! } };
	return { steps: [...steps, expected], problem: null };
}
