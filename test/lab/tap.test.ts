import { expect } from 'chai';
import { BUILT_IN_CONDITIONS } from '$core/load/conditions/conditions';
import { tapVerdict, type TapRecord } from '$core/load/journey/tap';
import { Lab } from '../../src/lab/lab';
import { rule, serve, UNWATCHED, type RunningServer } from '../support/world';

/** A menu button that is painted at once; its script comes late, or something moves it, or lies over it. */
const PAGE = (late: string) => `<!doctype html><title>x</title><meta name="viewport" content="width=device-width">
<h1>Harbour</h1><button id="menu" style="position:absolute;top:100px;left:20px;width:120px;height:40px">Menu</button>
<p id="list" hidden>Timetable</p>
<script>const arm = () => { document.querySelector('#menu').onclick = () => { document.querySelector('#list').hidden = false } };
${late}</script>`;

const PAGES: Record<string, string> = {
	'/ready': PAGE('arm()'),
	// Nobody listens for the first two seconds.
	'/late': PAGE('setTimeout(arm, 2000)'),
	'/moves': PAGE(`arm(); setTimeout(() => { document.querySelector('#menu').style.top = '260px' }, 900)`),
	'/covered': PAGE(
		`arm(); setTimeout(() => { const box = document.createElement('div'); box.textContent = 'Cookies'; box.style.cssText = 'position:fixed;inset:0;background:#fff'; document.body.append(box) }, 300)`
	)
};

describe('early presses', function () {
	this.timeout(120_000);
	const phone = {
		...BUILT_IN_CONDITIONS[0]!,
		quietMs: 500,
		device: { ...BUILT_IN_CONDITIONS[0]!.device, targetSpeed: null }
	};
	let server: RunningServer;
	let lab: Lab;
	before(async () => {
		server = await serve(({ url = '/' }, response) =>
			response.writeHead(200, { 'content-type': 'text/html' }).end(PAGES[url] ?? '')
		);
		lab = new Lab({ calm: UNWATCHED, hostMap: [rule('*.test', server.port)] });
	});
	after(async () => {
		await lab.close();
		server.close();
	});
	const press = async (path: string, afterMs: number): Promise<TapRecord> => {
		const tap = { selector: '#menu', effect: '#list', effectIs: 'selector' as const, afterMs };
		const { record } = await lab.measure({ url: `http://page.test${path}`, conditions: phone, steps: [], tap });
		expect(record.status, record.failure?.message).to.equal('ok');
		return record.tap!;
	};

	it('work where the page listens, and tell when', async () => {
		const tap = await press('/ready', 1000);
		expect(tapVerdict(tap)).to.equal('works');
		expect(tap).to.include({ state: 'there', movedPx: 0 });
		expect(tap.responseMs).to.be.within(1, 300);
	});

	it('are lost before anybody listens, and work afterwards', async () => {
		expect(tapVerdict(await press('/late', 0))).to.equal('lost');
		expect(tapVerdict(await press('/late', 3000))).to.equal('works');
	});

	it('miss what moves away under the finger, and what is covered', async function () {
		// The page moves by a timer: a machine that stops it meanwhile moves the press past it.
		this.retries(2);
		const moved = await press('/moves', 1000);
		expect(moved).to.include({ state: 'moved', movedPx: 160, effectMs: null });
		expect(tapVerdict(await press('/covered', 1000))).to.equal('covered');
	});

	it('find nothing where nothing is', async () => {
		const tap = { selector: '#nowhere', effect: 'x', effectIs: 'text' as const, afterMs: 0 };
		const { record } = await lab.measure({ url: 'http://page.test/ready', conditions: phone, steps: [], tap });
		expect(record.tap).to.include({ state: 'missing', atMs: null });
	});
});
