import { expect } from 'chai';
import type { LoadDigest } from '$core/compare/digest';
import { compareFairness, restsOn } from '$core/compare/fairness';
import { wordLikeness } from '$core/stats/wordLikeness';
import type { Setup } from '$core/trial/design/setup';
import { describeFairness } from '$core/wording/fairness';
import { arm, component, design, setup } from '../../support/arms';
import { chatty, digest, load, page, plain } from '../../support/digests';
import { recordOf } from '../../support/records';

describe('fairness', () => {
	const state = (lines: ReturnType<typeof compareFairness>, id: string) => lines.find((line) => line.id === id)!.state;
	const side = (loads: LoadDigest[], setting: Setup | null = null, id = 1) => ({
		arm: arm(id, id === 1 ? 'A' : 'B', setting),
		loads,
		health: { condition: 'desktop', arm: id, loads: 8, failed: 0, excluded: 0 }
	});

	it('finds what is equal, different and unknown', () => {
		const lines = compareFairness(design, side([plain()]), side([chatty()], null, 2), 0.9);
		expect(state(lines, 'browser')).to.equal('unknown');
		expect(state(lines, 'status')).to.equal('equal');
		expect(state(lines, 'third-parties')).to.equal('differs');
		expect(state(lines, 'picture')).to.equal('differs');
		expect(state(lines, 'words')).to.equal('equal');
		expect(state(lines, 'tiers')).to.equal('unknown');
		expect(state(lines, 'time')).to.equal('equal');
		expect(
			state(compareFairness({ ...design, kind: 'before-after' }, side([plain()]), side([plain()]), null), 'time')
		).to.equal('differs');
		expect(lines.map((line) => line.id)).to.deep.equal([...new Set(lines.map((line) => line.id))]);
	});

	it('sees that the browser was updated between stages, and that the machine was busier', () => {
		const on = (browser: string, before: number) =>
			digest(
				load('a.test', [], {
					environment: { ...recordOf().environment, browser, machineSpeed: { before, after: null } }
				})
			);
		const lines = compareFairness(
			{ ...design, kind: 'before-after' },
			side([on('Chromium 155', 200)]),
			side([on('Chromium 156', 150)], null, 2),
			null
		);
		expect(describeFairness(lines.find((line) => line.id === 'browser')!)).to.deep.include({
			state: 'differs',
			values: ['Chromium 155', 'Chromium 156']
		});
		expect(state(lines, 'machine')).to.equal('differs');
		expect(restsOn(lines).map((line) => line.id)).to.include.members(['browser', 'machine']);
	});

	it('keeps differences on the verdict unless they are intended', () => {
		const lines = compareFairness(
			{ ...design, intended: ['picture'] },
			side([plain()]),
			side([chatty()], null, 2),
			0.5
		);
		expect(restsOn(lines).map((line) => line.id)).to.deep.equal([]);
		const other = compareFairness(
			design,
			side([plain()]),
			side([digest(load('skerry.test', [], { page: page('Something else entirely here') }))], null, 2),
			1
		);
		expect(restsOn(other).map((line) => line.id)).to.deep.equal(['words']);
	});

	it('wants features and tiers level', () => {
		const lines = compareFairness(
			design,
			side([plain()], setup([component('Larder', { tier: 'free' })], { Fonts: true, Form: true })),
			side([plain()], setup([component('Larder', { tier: 'paid' })], { Fonts: false, Form: true }), 2),
			1
		);
		expect(state(lines, 'tiers')).to.equal('differs');
		expect(describeFairness(lines.find((line) => line.id === 'features')!).meaning).to.match(/^Not level: Fonts/);
	});

	it('likens texts by their words', () => {
		expect(wordLikeness('one two three', 'Three, two: one!')).to.equal(1);
		expect(wordLikeness('one two', 'two three')).to.be.closeTo(1 / 3, 1e-9);
		expect(wordLikeness('', ' ')).to.equal(null);
	});
});
