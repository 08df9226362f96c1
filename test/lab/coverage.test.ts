import { expect } from 'chai';
import type { CDPSession } from 'playwright-core';
import { CoverageCollector } from '../../src/lab/collect/coverage';

const SHEET = { styleSheetId: 's1', sourceURL: 'https://a.test/look.css', length: 100 };

/** Stands for a tab: notes what it is asked, and tells of a sheet of which half the rules match. */
function fakeTab() {
	const asked: string[] = [];
	let hear: (event: unknown) => void = () => undefined;
	const answers: Record<string, unknown> = {
		'Profiler.takePreciseCoverage': { result: [] },
		'CSS.stopRuleUsageTracking': {
			ruleUsage: [
				{ styleSheetId: 's1', startOffset: 0, endOffset: 50, used: true },
				{ styleSheetId: 's1', startOffset: 50, endOffset: 100, used: false }
			]
		}
	};
	const session = {
		on: (event: string, listener: typeof hear) => void (event === 'CSS.styleSheetAdded' && (hear = listener)),
		send: async (method: string) => {
			asked.push(method);
			if (method === 'CSS.enable') hear({ header: SHEET });
			return answers[method] ?? {};
		}
	};
	return { asked, session: session as unknown as CDPSession };
}

describe('coverage', () => {
	it('asks nothing of style while the page loads: counting rules reads its sheets a second time', async () => {
		const { asked, session } = fakeTab();
		await new CoverageCollector(session).start();
		expect(asked.filter((method) => !method.startsWith('Profiler.'))).to.deep.equal([]);
	});

	it('asks it of the settled page, and leaves the page alone afterwards', async () => {
		const { asked, session } = fakeTab();
		const collector = new CoverageCollector(session);
		await collector.start();
		const unused = await collector.take();
		expect(unused.style).to.equal(50);
		expect(unused.byUrl.get('https://a.test/look.css')).to.equal(50);
		expect(asked.slice(-2)).to.deep.equal(['CSS.disable', 'DOM.disable']);
	});
});
