import { expect } from 'chai';
import * as v from 'valibot';
import { selectorProblem } from '$core/load/journey/selector';
import { NewTrialInput } from '$core/trial/design/input';
import { StandingInput } from '$core/watch/input';

// Which texts are selectors: Selectors Level 4, sections 3 and 18 (grammar); tried in Chromium's querySelector.
const GOOD = [
	'#finder',
	'form.search, #finder',
	'[data-x="1"] > *',
	'li:nth-child(2 of .x)',
	'h1:is(.a, .b) ~ p',
	'a:has(> img)',
	'.sm\\:flex',
	'a:focus-visible'
];
const BAD = ['form..search', 'div[', 'a ~', '> a', 'a,,b', 'div:not(', '', '>', '#'];

describe('selectors that somebody typed', () => {
	for (const text of GOOD) it(`takes ${text}`, () => expect(selectorProblem(text)).to.equal(null));
	for (const text of BAD)
		it(`says what is wrong with “${text}”`, () =>
			expect(selectorProblem(text)).to.match(/is no selector: .+\. Write it as for a style sheet/));

	it('are looked at where a standing or a trial is made, at their field', () => {
		const standing = { clientId: 1, name: 'Home pages', pages: [1, 2], schedule: { every: 'week' } };
		const read = v.safeParse(StandingInput, { ...standing, shown: [{ name: 'Finder', selector: 'form..search' }] });
		expect(read.issues?.map((issue) => [v.getDotPath(issue), issue.message.slice(0, 28)])).to.deep.equal([
			['shown', '“form..search” is no selecto']
		]);
		const trial = {
			question: 'Is it?',
			kind: 'same-page',
			arms: [{ name: 'A', url: 'https://a.test/', checks: [{ kind: 'selector', value: 'div[' }] }],
			conditions: ['phone'],
			rounds: 8,
			warmups: 1
		};
		const told = v.safeParse(NewTrialInput, trial);
		expect(told.issues?.map((issue) => v.getDotPath(issue))).to.include('arms.0.checks');
	});
});
