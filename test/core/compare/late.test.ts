import { expect } from 'chai';
import { ownerFates } from '$core/compare/late/fates';
import { lateFacts, type LateFacts, type LateKind } from '$core/compare/late/facts';
import { putOffIn, type LateLoads } from '$core/compare/late/putOff';
import type { MetricId } from '$core/metrics/catalogue';
import { plainAnswer } from '$core/wording/plainAnswer';
import { wordLate } from '$core/wording/held';
import { emptyRecord } from '$core/load/record/emptyRecord';
import { recordOf, requestOf } from '../../support/records';
import { resultOf } from '../../support/results';

const facts = (kind: LateKind, added: LateFacts['added'], extra: Partial<LateFacts> = {}): LateFacts => ({
	kind,
	requests: 3,
	wireBytes: 90_000,
	scriptMs: 400,
	fromMs: 7000,
	settledMs: 2000,
	added,
	figures: { wire: 300_000, score: 90 },
	hosts: [],
	...extra
});
const plain = (text: string) => text.replace(/\u00a0/g, ' ');
const NONE: LateLoads = { postponed: null, heldBack: null };
const better = (metric: MetricId, estimate: number, margin: number) =>
	resultOf(metric, 'better', [estimate, estimate * 1.2, estimate * 0.8], { margin });

describe('work that is put off', () => {
	it('takes a gain away that comes back as a whole, and leaves the rest', () => {
		// 300 ms less blocking, 400 ms of it 5 s later; 90 kB less, none of it later.
		const results = [better('tbt', -300, 50), better('wire', -90_000, 10_000)];
		const late = { postponed: facts('postponed', { tbt: 400, wire: 0 }), heldBack: null };
		expect(putOffIn(results, NONE, late)).to.deep.equal([{ metric: 'tbt', kind: 'postponed', afterMs: 5000 }]);
	});

	it('leaves a gain that is still there, beyond its margin, with what comes late', () => {
		const results = [better('tbt', -600, 50)];
		expect(putOffIn(results, NONE, { postponed: facts('postponed', { tbt: 200 }), heldBack: null })).to.deep.equal([]);
		// 600 less and 560 later leave 40, within the margin.
		expect(putOffIn(results, NONE, { postponed: facts('postponed', { tbt: 560 }), heldBack: null })).to.have.length(1);
	});

	it('counts what the baseline does late too', () => {
		const results = [better('tbt', -300, 50)];
		const both = { postponed: facts('postponed', { tbt: 400 }), heldBack: null };
		expect(putOffIn(results, both, both)).to.deep.equal([]);
	});

	it('turns points of the score the other way, and tells what comes by itself before what needs an input', () => {
		const results = [better('score', 12, 3)];
		const late = { postponed: facts('postponed', { score: -11 }), heldBack: facts('held-back', { score: -12 }) };
		expect(putOffIn(results, NONE, late)).to.deep.equal([{ metric: 'score', kind: 'postponed', afterMs: 5000 }]);
		expect(putOffIn(results, NONE, { ...late, postponed: null })[0]).to.include({ kind: 'held-back', afterMs: null });
	});

	it('makes no gain, and says nothing of what is not better', () => {
		const worse = resultOf('tbt', 'worse', [300, 200, 400], { margin: 50 });
		const open = resultOf('wire', 'undecided', [-9000, -30_000, 12_000], { margin: 10_000 });
		const late = { postponed: facts('postponed', { tbt: 400, wire: 9e6 }), heldBack: null };
		expect(putOffIn([worse, open], NONE, late)).to.deep.equal([]);
		expect(putOffIn([better('lcp', -500, 100)], NONE, late), 'nothing late adds to a paint').to.deep.equal([]);
	});
});

describe('an answer over work that is put off', () => {
	const names = { arm: 'Hushbox', baseline: 'As it is' };
	const later = { metric: 'tbt', kind: 'postponed', afterMs: 5000 } as const;

	it('calls no gain what comes back later', () => {
		const { sentence, tone } = plainAnswer('Is it faster?', {
			results: [better('tbt', -300, 50)],
			names,
			putOff: [later]
		});
		expect(plain(sentence)).to.equal(
			'Only at first. In one load what “Hushbox” saves in blocking time came back by itself, 5.00 s after the page had settled.'
		);
		expect(tone).to.equal('mixed');
		for (const question of ['Is it slower?', 'Which is best?'])
			expect(plainAnswer(question, { results: [better('tbt', -300, 50)], names, putOff: [later] }).sentence).to.match(
				/^In one load/
			);
	});

	it('keeps the gains that stay, and says beside them what comes back', () => {
		const results = [better('lcp', -500, 100), better('tbt', -300, 50)];
		const { sentence, detail } = plainAnswer('Is it faster?', {
			results,
			names,
			putOff: [{ ...later, kind: 'held-back', afterMs: null }]
		});
		expect(plain(sentence)).to.equal(
			'Yes. “Hushbox” is faster than “As it is”. In one load what “Hushbox” saves in blocking time came back once the visitor moved.'
		);
		expect(detail).not.to.include('blocking');
	});

	it('tells a slower paint beside it whose size is open', () => {
		const slow = resultOf('lcp', 'slight', [300, 40, 560]);
		const { sentence } = plainAnswer('Is it faster?', {
			results: [better('tbt', -300, 50), slow],
			names,
			putOff: [later]
		});
		expect(plain(sentence)).to.match(
			/^Only at first\. .* “Hushbox” is slower in largest paint than “As it is”; by how much is open\.$/
		);
	});

	it('is what it was without any', () => {
		const results = [better('tbt', -300, 50)];
		expect(plainAnswer('Is it faster?', { results, names })).to.deep.equal(
			plainAnswer('Is it faster?', { results, names, putOff: [] })
		);
	});
});

describe('facts of a late load', () => {
	it('are the work of its late phase, by host, and what it adds to each figure', () => {
		const blank = emptyRecord('https://own.test/', null, '2026-11-24T10:00:00.000Z', null);
		const figuresWith = { ...blank.figures, tbt: 500, wire: 1100, score: 60 };
		const record = recordOf({
			figures: { tbt: 100, wire: 1000, score: 80 },
			settledMs: 2000,
			requests: [
				requestOf({ url: 'https://own.test/', wireBytes: 1000 }),
				requestOf({ url: 'https://chat.test/a.js', wireBytes: 60, startMs: 7000, during: 'patience' }),
				requestOf({ url: 'https://chat.test/b.js', wireBytes: 40, startMs: 7100, during: 'patience' })
			],
			postponed: {
				fromMs: 4000,
				untilMs: 19_000,
				firstMs: 7000,
				requests: 2,
				wireBytes: 100,
				decodedBytes: 100,
				scriptMs: 12,
				figuresWith
			}
		});
		const late = lateFacts(record)!;
		expect(late).to.deep.include({ kind: 'postponed', requests: 2, wireBytes: 100, fromMs: 7000, settledMs: 2000 });
		expect(late.added).to.deep.include({ tbt: 400, wire: 100, score: -20, cls: null });
		expect(late.hosts).to.deep.equal([
			{ host: 'own.test', loadRequests: 1, loadBytes: 1000, lateRequests: 0, lateBytes: 0, lateMs: null },
			{ host: 'chat.test', loadRequests: 0, loadBytes: 0, lateRequests: 2, lateBytes: 100, lateMs: 7000 }
		]);
		expect(lateFacts(recordOf())).to.equal(null);
	});

	it('are worded as facts of one load, when they are notable', () => {
		expect(wordLate(facts('postponed', {}), 'Timer')).to.match(
			/postpones work: in one load 3 requests.*by itself, from 5.00/
		);
		expect(
			plain(
				wordLate(
					facts('held-back', {}, { requests: 30, wireBytes: 50_000, figures: { wire: 150_000, score: 80 } }),
					'Hushed'
				)
			)
		).to.equal(
			'“Hushed” waits for interaction: in one load 30 requests, 50.0 kB (25 % of its bytes) and 400 ms of script came only after the visitor moved.'
		);
		expect(wordLate(facts('postponed', {}, { wireBytes: 900, scriptMs: 20 }), 'Timer')).to.equal('');
		expect(wordLate(null, 'Timer')).to.equal('');
	});
});

describe('the fate of each owner’s requests', () => {
	const host = (name: string, loaded: number, late = 0) => ({
		host: name,
		loadRequests: loaded,
		loadBytes: loaded * 100,
		lateRequests: late,
		lateBytes: late * 100,
		lateMs: late ? 7000 : null
	});
	const baseline: LateLoads = {
		postponed: facts(
			'postponed',
			{},
			{ hosts: [host('own.test', 9), host('chat.test', 5), host('ads.test', 4), host('count.test', 1)] }
		),
		heldBack: null
	};

	it('tells postponed, held back and removed apart', () => {
		const arm: LateLoads = {
			postponed: facts('postponed', {}, { hosts: [host('own.test', 9), host('chat.test', 0, 5)] }),
			heldBack: facts(
				'held-back',
				{},
				{ hosts: [host('own.test', 9), host('chat.test', 0, 5), host('ads.test', 0, 4)] }
			)
		};
		const fates = ownerFates(baseline, arm, 'own.test');
		expect(fates.map(({ name, fate }) => [name, fate])).to.deep.equal([
			['own.test', 'loaded'],
			['chat.test', 'postponed'],
			['ads.test', 'held-back'],
			['count.test', 'removed']
		]);
		expect(fates[1]).to.deep.include({ postponedMs: 7000, baseline: { requests: 5, wireBytes: 500 } });
	});
});
