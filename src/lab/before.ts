/** Making a visitor before the page is measured: cookies and steps in a tab of their own. */
import type { Conditions } from '$core/load/conditions/conditions';
import type { VisitorState } from '$core/load/journey/visitorState';
import { emptyJourney, runSteps } from './actions';
import { failure } from './failure';
import type { Visit } from './visit';

/**
 * The visitor keeps what sites keep of them: cookies and storage. What the browser kept of files goes unless the load
 * is a repeat visit: else a state would change two things at once.
 * @throws LoadFailure when a step does not do what it should: whoever is measured then is somebody else
 */
export async function becomeVisitor(visit: Visit, state: VisitorState, conditions: Conditions): Promise<void> {
	const { session } = visit;
	const { origin } = visit.address;
	for (const { name, value } of state.cookies) await session.send('Network.setCookie', { name, value, url: origin });
	if (state.steps.length) await walk(visit, state, conditions);
	if (conditions.cache === 'first') await session.send('Network.clearBrowserCache');
}

async function walk(visit: Visit, { name, steps }: VisitorState, conditions: Conditions): Promise<void> {
	const deadline = performance.now() + conditions.capMs;
	await visit.navigate(deadline);
	await visit.settle(deadline);
	const journey = await runSteps(visit, steps, conditions, emptyJourney());
	const wrong = journey.steps.find(({ status }) => status === 'failed');
	if (wrong) throw failure('visitor-state', `“${name}” was not reached. ${wrong.message ?? wrong.words}`);
}
