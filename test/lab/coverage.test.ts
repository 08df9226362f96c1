import { expect } from 'chai';
import type { CDPSession } from 'playwright-core';
import { BUILT_IN_CONDITIONS, type Conditions } from '$core/load/conditions/conditions';
import { Lab } from '../../src/lab/lab';
import { rule, serve, UNWATCHED, type RunningServer } from '../support/world';
import type { NetworkCollector } from '../../src/lab/collect/network';
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
		const network = { finished: [] } as unknown as NetworkCollector;
		const collector = new CoverageCollector(session);
		await collector.start();
		const unused = await collector.take(session, network);
		expect(unused.style).to.equal(50);
		expect(unused.byUrl.get('https://a.test/look.css')).to.equal(50);
		expect(asked.slice(-3)).to.deep.equal(['CSS.disable', 'DOM.disable', 'Fetch.disable']);
	});
});

describe('asking of style in a real browser', function () {
	this.timeout(60_000);
	const [, DESKTOP] = BUILT_IN_CONDITIONS as [Conditions, Conditions];
	const asked: string[] = [];
	let site: RunningServer;
	let lab: Lab;
	before(async () => {
		site = await serve(({ url }, response) => {
			asked.push(url!);
			// May not be answered for by any cache.
			const answer = (type: string, body: string) =>
				response.writeHead(200, { 'content-type': type, 'cache-control': 'no-store' }).end(body);
			if (url === '/look.css') return void answer('text/css', '@import "more.css"; h1 { color: red } .none { top: 0 }');
			if (url === '/more.css') return void answer('text/css', '.nowhere { left: 0 }');
			answer('text/html', '<link rel="stylesheet" href="/look.css"><style>.x { top: 0 }</style><h1>Words</h1>');
		});
		lab = new Lab({ calm: UNWATCHED, hostMap: [rule('style.test', site.port)] });
	});
	after(async () => {
		await lab.close();
		site.close();
	});

	it('asks the host for nothing that the record does not show, with headers of the conditions too', async () => {
		for (const headers of [[], [{ name: 'X-Preview', value: 'a' }]]) {
			asked.length = 0;
			const conditions = { ...DESKTOP, capMs: 8000, quietMs: 500, headers };
			const { record } = await lab.measure({ url: 'http://style.test/', conditions, steps: [] });
			// Browsers ask for the tab's icon by themselves.
			const seen = asked.filter((path) => path !== '/favicon.ico');
			expect(seen).to.deep.equal(record.requests.map(({ url }) => new URL(url).pathname));
			expect(seen).to.deep.equal(['/', '/look.css', '/more.css']);
			// Characters that no used rule holds: 52 - 17 of look.css, 21 of more.css, 14 in the document.
			expect(record.figures.unusedCss).to.equal(70);
		}
	});
});
