/**
 * Every endpoint and form, asked with bodies on and off its schema: no 5xx, no stack, nothing stored that cannot be
 * read back.
 */
import { expect } from 'chai';
import fc from 'fast-check';
import { startApp, type TestApp } from '../support/app';
import { oddText, odd, record, id, NewTrial, SingleLoad, Har } from '../support/arbitraries';

const SEED = 20261125;
/** Cases in all; they are shared out among the endpoints and forms. */
const CASES = process.env.ZAFRA_TEST_LONG ? 2000 : 700;

interface Target {
	path: fc.Arbitrary<string>;
	method?: string;
	body: fc.Arbitrary<unknown>;
	form?: boolean;
	/** Where what was stored is read back. */
	readBack?: (answer: { id: number }) => string[];
}
const trialPath = (rest: string) => id.map((value) => `/api/trials/${value}${rest}`);
const none = fc.constant(undefined);

const API: Record<string, Target> = {
	'a new trial': {
		path: fc.constant('/api/trials'),
		body: NewTrial,
		readBack: ({ id: made }) => [`/api/trials/${made}`, `/trials/${made}`, `/api/trials/${made}/loads.csv`]
	},
	'a load': {
		path: fc.constant('/api/loads'),
		body: SingleLoad,
		readBack: ({ id: made }) => [`/api/singles/${made}`, '/loads']
	},
	'a HAR': {
		path: fc.constant('/api/loads/har'),
		body: Har,
		readBack: ({ id: made }) => [`/api/loads/${made}`, `/loads/${made}`, `/api/loads/${made}/har`]
	},
	start: { path: trialPath('/start'), body: fc.oneof(none, record({ stage: fc.nat(3) }, [])) },
	rounds: { path: trialPath('/rounds'), body: record({ rounds: fc.nat(50) }, []) },
	'stop, pause, resume, repeat, read': {
		path: fc
			.tuple(id, fc.constantFrom('stop', 'pause', 'resume', 'repeat', 'read'))
			.map(([one, verb]) => `/api/trials/${one}/${verb}`),
		body: none
	},
	exclude: { path: id.map((value) => `/api/loads/${value}/exclude`), body: record({ reason: oddText }, []) },
	'intended differences': { path: trialPath('/intend'), body: record({ line: oddText }, []) },
	'what was changed': {
		path: trialPath('/changes'),
		body: record({ words: oddText, fileName: oddText, file: oddText }, [])
	},
	'a setup': {
		method: 'PUT',
		path: fc.tuple(id, id).map(([one, arm]) => `/api/trials/${one}/arms/${arm}/setup`),
		body: fc.oneof(odd, fc.constant({ components: [], features: {}, effortHours: null }))
	},
	nudges: {
		path: fc
			.tuple(id, id, fc.boolean())
			.map(([one, arm, load]) => (load ? `/api/loads/${one}/nudge` : `/api/trials/${one}/arms/${arm}/nudge`)),
		body: none
	},
	deleting: {
		method: 'DELETE',
		path: fc.tuple(fc.constantFrom('trials', 'loads'), id).map(([what, one]) => `/api/${what}/${one}`),
		body: none
	},
	restore: { path: id.map((value) => `/api/loads/${value}/restore`), body: odd },
	'reading by odd ids': {
		method: 'GET',
		path: fc
			.tuple(
				fc.constantFrom('/api/trials/', '/api/loads/', '/api/singles/', '/trials/', '/loads/', '/workshop/conditions/'),
				oddText.filter((text) => !text.includes('/'))
			)
			.map(([base, text]) => base + encodeURIComponent(text.toWellFormed())),
		body: none
	},
	'reading lists with odd queries': {
		method: 'GET',
		path: fc
			.tuple(
				fc.constantFrom(
					'/loads?page=',
					'/loads?waiting=',
					'/trials?q=',
					'/trials?state=',
					'/trials?page=',
					'/trials?site=',
					'/api/trials?verdict=',
					'/api/trials?client=',
					'/trials/new?template=',
					'/workshop/conditions/new?from='
				),
				oddText
			)
			.map(([base, text]) => base + encodeURIComponent(text.toWellFormed())),
		body: none
	}
};

const field = (names: string[]) =>
	fc.dictionary(
		fc.constantFrom(...names),
		fc.oneof(oddText, fc.constantFrom('1', 'on', '{"components":[]}', '{', '[1')),
		{ maxKeys: names.length }
	);
const FORMS: Record<string, Target> = {
	'the trial sheet': {
		form: true,
		path: fc
			.tuple(
				id,
				fc.constantFrom('start', 'pause', 'stop', 'rounds', 'exclude', 'restore', 'intend', 'setup', 'nudge', 'repeat')
			)
			.map(([one, act]) => `/trials/${one}?/${act}`),
		body: field(['rounds', 'load', 'reason', 'line', 'setup', 'setup.features', 'arm', 'change', 'file'])
	},
	'the new trial': {
		form: true,
		path: fc.constant('/trials/new'),
		body: field([
			'question',
			'kind',
			'arms',
			'arms.0.name',
			'arms.0.url',
			'arms.1.url',
			'arms.99999999.url',
			'arms.0.setup.components.0.name',
			'__superform_json',
			'conditions',
			'rounds',
			'warmups',
			'primary',
			'steps',
			'notBefore',
			'clientId',
			'then',
			'baseline',
			'referenceUrl'
		])
	},
	'the loads': {
		form: true,
		path: fc.tuple(fc.constantFrom('load', 'har', 'drop', 'delete')).map(([act]) => `/loads?/${act}`),
		body: field(['url', 'conditions', 'nudge', 'steps', 'clientId', 'id', 'file'])
	},
	'a load’s nudge': { form: true, path: id.map((value) => `/loads/${value}?/nudge`), body: field(['x']) },
	'the conditions': {
		form: true,
		path: fc
			.tuple(fc.constantFrom('new', 'phone', 'no-such', '%F0%9F'), fc.constantFrom('save', 'drop'))
			.map(([one, act]) => `/workshop/conditions/${one}?/${act}`),
		body: field([
			'id',
			'name',
			'width',
			'height',
			'pixelRatio',
			'headers',
			'cookies',
			'hostMap',
			'place',
			'capS',
			'quietS',
			'block',
			'username',
			'password'
		])
	},
	'the workshop': { form: true, path: fc.constant('/workshop?/cdn'), body: field(['site', 'hosts']) },
	'the client': { form: true, path: fc.constant('/client'), body: field(['client', 'back']) }
};

describe('fuzz', function () {
	this.timeout(240_000);
	let app: TestApp;
	before(async () => {
		app = await startApp({ environment: { ZAFRA_RUNNER: 'off' } });
	});
	after(() => app.end());

	const targets = { ...API, ...FORMS };
	const each = Math.ceil(CASES / Object.keys(targets).length);

	async function send(target: Target, path: string, body: unknown): Promise<Response> {
		const headers: Record<string, string> = {
			connection: 'close',
			origin: app.url,
			accept: target.form ? 'text/html' : 'application/json'
		};
		if (target.method === 'GET' || target.method === 'DELETE')
			return fetch(app.url + path, { method: target.method, headers, redirect: 'manual' });
		if (target.form)
			return fetch(app.url + path, {
				method: 'POST',
				headers,
				redirect: 'manual',
				body: new URLSearchParams(body as Record<string, string>)
			});
		const text = body === undefined ? undefined : JSON.stringify(body);
		return fetch(app.url + path, {
			method: target.method ?? 'POST',
			headers: { ...headers, 'content-type': 'application/json' },
			...(text === undefined ? {} : { body: text })
		});
	}

	for (const [name, target] of Object.entries(targets))
		it(`${name}: ${each} cases`, () =>
			fc.assert(
				fc.asyncProperty(target.path, target.body, async (path, body) => {
					const answer = await send(target, path, body);
					const text = await answer.text();
					expect(answer.status, `${path} ${JSON.stringify(body)?.slice(0, 300)} -> ${text.slice(0, 300)}`).to.be.below(
						500
					);
					expect(text).not.to.match(/\n\s+at .*\(.*:\d+:\d+\)|SqliteError|node_modules/);
					if (answer.status !== 201 && answer.status !== 202) return;
					for (const back of target.readBack?.(JSON.parse(text) as { id: number }) ?? []) {
						const read = await fetch(app.url + back, { headers: { connection: 'close' } });
						expect(read.status, `${back} after ${JSON.stringify(body)?.slice(0, 500)}`).to.equal(200);
						await read.arrayBuffer();
					}
				}),
				{ seed: SEED, numRuns: each, interruptAfterTimeLimit: 200_000, markInterruptAsFailure: true }
			));
});
