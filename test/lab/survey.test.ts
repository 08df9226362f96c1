/** Looking at pages: what can be picked, which checks hold, and that none of them sends anything. */
import { expect } from 'chai';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { BUILT_IN_CONDITIONS, type Conditions } from '$core/load/conditions/conditions';
import type { LoadRecord, MeasuredLoad } from '$core/load/record/record';
import type { Step } from '$core/load/journey/steps';
import { Lab } from '../../src/lab/lab';
import { sentTo, TEMPLATE_HOSTS, templateSites } from '../support/templateSites';
import { rule, serve, startDemoWeb, UNWATCHED, type RunningServer, type RunningWorld } from '../support/world';

const [PHONE, DESKTOP] = BUILT_IN_CONDITIONS as [Conditions, Conditions];
const quick = (conditions: Conditions): Conditions => ({
	...conditions,
	quietMs: 500,
	capMs: 10_000,
	device: { ...conditions.device, targetSpeed: null },
	network: { roundTripMs: 5, downKbps: 40_000, upKbps: 10_000, dnsMs: 0 }
});

/** What the page of forms got that was no question. */
const got: string[] = [];
const FORMS = `<!doctype html><html lang="en"><title>Forms</title><h1>Lanterns</h1>
<nav><a href="/es" hreflang="es">Español</a></nav>
<details><summary>More</summary><p>Inside</p></details>
<form role="search" action="/find"><input type="search" name="q" aria-label="Find"></form>
<form id="plain" method="post" action="/order"><label>Name <input name="name" required></label><label>Mail <input type="email" name="mail" required></label><select name="n" required><option value="">–</option><option>2</option></select><button>Order</button></form>
<form id="scripted"><input name="x"><button>Ask</button></form>
<form id="picky"><input name="y" required pattern="[0-9]{9}z"><button>Picky</button></form>
<button id="buy" data-buy="1">Add to cart</button><button id="post">Add to basket by post</button><p class="cart-count">0</p>
<video id="film" width="200" height="100" muted></video>
<script>
document.getElementById('scripted').addEventListener('submit', function (event) { event.preventDefault(); fetch('/api', { method: 'POST', body: 'x' }).catch(function () { setTimeout(function () { fetch('/api', { method: 'POST' }).catch(function () {}); }, 1500); }); });
document.getElementById('buy').onclick = function () { document.querySelector('.cart-count').textContent = '1'; };
</script>`;
function site({ url = '/', method = 'GET' }: IncomingMessage, response: ServerResponse): void {
	if (method !== 'GET') got.push(`${method} ${url}`);
	const { pathname } = new URL(url, 'http://any.test');
	const html = { '/': FORMS, '/es': FORMS.replace('lang="en"', 'lang="es"'), '/find': '<title>Found</title><p>Two' }[
		pathname
	];
	response.writeHead(html ? 200 : 404, { 'content-type': 'text/html' }).end(html ?? '');
}

describe('looking at a page', function () {
	this.timeout(240_000);
	let [plain, templates]: (RunningServer | null)[] = [null, null];
	let web: RunningWorld;
	let lab: Lab;
	before(async () => {
		[plain, templates] = await Promise.all([serve(site), serve(templateSites)]);
		web = await startDemoWeb();
		lab = new Lab({
			calm: UNWATCHED,
			trustedKeys: [web.keyHash],
			hostMap: [
				rule('forms.test', plain.port),
				...TEMPLATE_HOSTS.map((host) => rule(host, templates!.port)),
				...web.rules
			]
		});
	});
	after(async () => {
		await lab.close();
		plain!.close();
		templates!.close();
		web.close();
	});
	const lookAt = async (url: string, conditions = DESKTOP): Promise<MeasuredLoad & { record: LoadRecord }> => {
		const measured = await lab.measure({ url, conditions: quick(conditions), steps: [], survey: true });
		expect(measured.record.failure, url).to.equal(null);
		return measured;
	};
	const toldOf = ({ record }: MeasuredLoad) =>
		record.survey!.checks.map(({ kind, status, message }) => [kind, status, message ?? '']);
	const stepsOn = async (steps: Step[]) => {
		const { record } = await lab.measure({ url: 'http://forms.test/', conditions: quick(DESKTOP), steps });
		return record.steps.map(({ status, message }) => message ?? status);
	};

	it('names what can be picked, each by a selector that names it alone', async () => {
		const { record, survey } = await lookAt('http://forms.test/');
		const { elements, height } = record.survey!;
		const byLabel = (label: string) => elements.find((element) => element.label === label)!;
		expect(byLabel('Order')).to.include({ matches: 1, kind: 'button' });
		expect(elements.filter(({ matches }) => matches !== 1)).to.deep.equal([]);
		expect(byLabel('Find').box.width).to.be.above(20);
		expect(height).to.be.at.least(DESKTOP.device.height / 2);
		expect(survey!.picture!.length).to.be.above(500);
	});

	it('tries each check that the markup suggests, in a tab of its own, and says why one is refused', async () => {
		got.length = 0;
		const measured = await lookAt('http://forms.test/');
		const told = toldOf(measured);
		expect(told.map(([kind]) => kind)).to.deep.equal(['menu', 'search', 'form', 'form', 'basket', 'video', 'language']);
		expect(told.filter(([, status]) => status === 'ok').map(([kind]) => kind)).to.deep.equal([
			'menu',
			'search',
			'form',
			'form',
			'basket',
			'language'
		]);
		expect(told.find(([kind]) => kind === 'video')![2]).to.match(/#film does not play/);
		const basket = measured.record.survey!.checks.find(({ kind }) => kind === 'basket')!;
		expect(basket.steps.at(-1)).to.deep.equal({ expect: { selector: 'p.cart-count', text: '1' } });
		expect(measured.survey!.checkPictures.every((picture) => picture && picture.length > 300)).to.equal(true);
		// Two forms were sent off, and none has left.
		expect(got).to.deep.equal([]);
	});

	it('sends no form: neither by itself nor by a script that tries again, and what it checks holds in loads too', async () => {
		got.length = 0;
		expect(await stepsOn([{ trySend: '#plain' }, { trySend: '#scripted' }, { wait: 2500 }])).to.deep.equal([
			'ok',
			'ok',
			'ok'
		]);
		expect(got).to.deep.equal([]);
		const [picky] = await stepsOn([{ trySend: '#picky' }]);
		expect(picky).to.match(/its field “y” takes nothing plausible/);
		const [nothing] = await stepsOn([{ trySend: '#gone' }]);
		expect(nothing).to.match(/nothing matches #gone/);
		const [noForm] = await stepsOn([{ trySend: 'h1' }]);
		expect(noForm).to.match(/h1 is no form/);
	});

	it('proposes on the demonstration’s sites what passes there', async () => {
		const shop = await lookAt('https://pellows-seed-house.test/seed/bean', PHONE);
		expect(toldOf(shop)).to.deep.include(['menu', 'ok', '']).and.deep.include(['basket', 'ok', '']);
		const ferry = await lookAt('https://skerry-line.test/booking', PHONE);
		expect(toldOf(ferry)).to.deep.include(['menu', 'ok', '']).and.deep.include(['form', 'ok', '']);
	});

	it('proposes on pages that nobody here wrote: each check passes, or is refused with its reason', async () => {
		sentTo.length = 0;
		for (const host of TEMPLATE_HOSTS) {
			const told = toldOf(await lookAt(`http://${host}/`, PHONE));
			expect(told, host).to.have.length.above(0);
			for (const [kind, status, message] of told)
				expect(status === 'ok' ? message === '' : message!.length > 10, `${host} ${kind}: ${message}`).to.equal(true);
			// Both templates hide their menu behind a button on a phone.
			expect(told, host).to.deep.include(['menu', 'ok', '']);
		}
		expect(sentTo).to.deep.equal([]);
	});
});
