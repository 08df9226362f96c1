import { expect } from 'chai';
import { seededRandom } from '$core/stats/random';
import { startApp, type TestApp } from '../support/app';
import { routeTargets, type RouteTarget } from '../support/routeTree';

/** A sample here; all with `ZAFRA_TEST_LONG`. */
const CASES = process.env.ZAFRA_TEST_LONG ? 2000 : 190;
const SEED = 20261130;
const ODD_IDS = [
	'1',
	'2',
	'3',
	'7',
	'999999',
	'0',
	'-1',
	'1e3',
	'abc',
	'%00',
	'%2e%2e',
	'１',
	'9'.repeat(40),
	'null',
	'__proto__'
];
const ODD_VALUES: unknown[] = [
	null,
	'',
	'x',
	0,
	1,
	-1,
	1e308,
	'x'.repeat(3000),
	'\u0000',
	'http://a.test/',
	'javascript:1',
	'2026-11-30',
	'2026-13-45',
	[],
	[1, 'a', null],
	{},
	{ __proto__: 1, a: { b: [] } },
	true,
	'en',
	'phone',
	['phone'],
	'on'
];
/** Never ends by itself. */
const STREAMS = new Set(['/api/events']);

class Cases {
	constructor(private readonly random: () => number) {}

	pick<Value>(list: readonly Value[]): Value {
		return list[Math.floor(this.random() * list.length)]!;
	}

	path({ route, action, names }: RouteTarget): string {
		const path = route.replace(/\[(\.\.\.)?\w+\]/g, () => encodeURI(this.pick(ODD_IDS)).replaceAll('%25', '%'));
		const query =
			this.random() < 0.4 ? `${this.pick(names) ?? 'q'}=${encodeURIComponent(String(this.pick(ODD_VALUES)))}` : '';
		const parts = [...(action === null ? [] : [action === 'default' ? '' : `/${action}`]), query].filter(Boolean);
		return parts.length ? `${path}?${parts.join('&')}` : path;
	}

	fields(names: readonly string[]): [string, unknown][] {
		return Array.from({ length: Math.floor(this.random() * 8) }, () => [
			this.pick(names) ?? 'a',
			this.pick(ODD_VALUES)
		]);
	}

	body({ action, names }: RouteTarget): { type: string; text: string } {
		const fields = this.fields(names);
		const kind = this.random();
		if (kind < 0.1)
			return {
				type: this.pick(['text/plain', 'application/json', 'application/xml']),
				text: this.pick(['', '{', '[]', 'null', '\u0000', '"a"'])
			};
		if (action !== null || kind < 0.2) {
			const text = new URLSearchParams(
				fields.map(([name, value]) => [name, typeof value === 'object' ? JSON.stringify(value) : String(value)])
			);
			return { type: 'application/x-www-form-urlencoded', text: text.toString() };
		}
		return { type: 'application/json', text: JSON.stringify(Object.fromEntries(fields)) };
	}
}

describe('every endpoint and form of the route tree', function () {
	this.timeout(CASES * 3000);
	let app: TestApp;
	before(async () => {
		app = await startApp({ demo: true, environment: { ZAFRA_RUNNER: 'off' } });
	});
	after(() => app.end());

	it('answers what is off its schema with a status below 500 and no inner words', async () => {
		const targets = routeTargets();
		expect(targets.filter(({ action }) => action === null).length, 'endpoints').to.be.above(80);
		expect(targets.filter(({ action }) => action !== null).length, 'actions').to.be.above(40);
		// What deletes comes last: the others shall find something.
		const rank = ({ method, action }: RouteTarget) =>
			method === 'DELETE' || /delete|remove/.test(action ?? '') ? 1 : 0;
		const ordered = [...targets].sort((a, b) => rank(a) - rank(b));
		const each = Math.ceil(CASES / ordered.length);
		const cases = new Cases(seededRandom(SEED));
		for (const target of ordered)
			for (let n = 0; n < each; n++) {
				const path = cases.path(target);
				const { type, text } = cases.body(target);
				const hasBody = target.method !== 'GET';
				const answer = await fetch(app.url + path, {
					method: target.method,
					headers: {
						accept: 'text/html',
						connection: 'close',
						origin: app.url,
						...(hasBody ? { 'content-type': type } : {})
					},
					...(hasBody ? { body: text } : {}),
					redirect: 'manual'
				});
				const told = `${target.method} ${path} ${hasBody ? text.slice(0, 200) : ''}`;
				if (STREAMS.has(target.route)) {
					await answer.body?.cancel();
					continue;
				}
				const words = await answer.text();
				expect(answer.status, `${told}\n${app.words().slice(-1500)}`).to.be.below(500);
				expect(words, told).not.to.match(/\n\s+at \w.*\(.*:\d+:\d+\)/);
			}
		expect((await app.api('GET', '/api/health')).status).to.equal(200);
	});
});
