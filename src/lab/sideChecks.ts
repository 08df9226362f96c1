/** Side checks of a settled page, in the lab's own world of it: the page neither sees nor changes them. */
import { createRequire } from 'node:module';
import { readFileSync } from 'node:fs';
import * as v from 'valibot';
import { AxeAnswer, axeViolations, headChecks, HeadFacts, type SideChecks } from '$core/load/journey/sideChecks';
import type { Protocol } from '../../node_modules/playwright-core/types/protocol';
import { within } from './browser/deadlines';
import { wait, type Visit } from './visit';

/** Levels A and AA of WCAG 2.0 to 2.2. */
const LEVELS = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];
/** A huge page is left out rather than waited for, ms (house). */
const AXE_WITHIN_MS = 8000;

let source: { text: string; version: string } | null = null;

function axe(): { text: string; version: string } {
	if (source) return source;
	const require = createRequire(import.meta.url);
	const { version } = require('axe-core/package.json') as { version: string };
	return (source = { text: readFileSync(require.resolve('axe-core/axe.min.js'), 'utf8'), version });
}

/** @throws LoadFailure when the page no longer answers */
export async function checkBeside(visit: Visit): Promise<SideChecks> {
	await visit.world.addTools();
	const deprecated = await deprecatedCalls(visit).catch(() => undefined);
	const head = headChecks({ ...v.parse(HeadFacts, await visit.call('headFacts')), deprecated });
	const { text, version } = axe();
	const options = JSON.stringify({ runOnly: { type: 'tag', values: LEVELS }, resultTypes: ['violations'] });
	const asked = within(visit.world.evaluate(`${text};axe.run(document, ${options})`), AXE_WITHIN_MS);
	const answer = await asked.catch(() => null);
	const read = v.safeParse(AxeAnswer, answer);
	return { head, version, axe: read.success ? axeViolations(read.output) : null };
}

/** What has been told by then comes at once when it is asked for. */
const ISSUES_WITHIN_MS = 150;

/** As the browser itself tells them, with the script that calls; each once. */
async function deprecatedCalls({ session }: Visit): Promise<string[]> {
	const found = new Set<string>();
	const note = ({ issue }: { issue: Protocol.Audits.InspectorIssue }) => {
		const { deprecationIssueDetails: details } = issue.details;
		if (details) found.add(nameOf(details));
	};
	session.on('Audits.issueAdded', note);
	await session.send('Audits.enable');
	await wait(ISSUES_WITHIN_MS);
	await session.send('Audits.disable');
	session.off('Audits.issueAdded', note);
	return [...found];
}

function nameOf({ type, sourceCodeLocation: { url } }: Protocol.Audits.DeprecationIssueDetails): string {
	return URL.canParse(url) ? `${type} (${new URL(url).host}${new URL(url).pathname})` : type;
}
