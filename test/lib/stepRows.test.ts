/** Steps in an editor: rows from the list and back, without a loss. */
import { expect } from 'chai';
import fc from 'fast-check';
import { KEYS, parseSteps, type Step } from '$core/load/journey/steps';
import { ROW_VERBS, rowsOf, stepsText, type StepRow } from '../../src/lib/parts/stepRows';

const word = fc.string({ minLength: 1, maxLength: 20 }).map((text) => `x${text.trim()}`);
const state = fc
	.tuple(fc.constantFrom('selector', 'text', 'gone', 'title', 'url'), word)
	.map(([kind, value]) => ({ [kind]: value }));
const step = fc.oneof(
	word.map((value) => ({ open: `/${encodeURIComponent(value)}` })),
	word.map((click) => ({ click })),
	fc.record({ type: word, into: word }),
	fc.constantFrom(...KEYS).map((press) => ({ press })),
	fc.oneof(fc.integer({ min: -5000, max: 5000 }), word, fc.constant('bottom')).map((scroll) => ({ scroll })),
	fc.nat(60_000).map((wait) => ({ wait })),
	fc.record({ wait: state, within: fc.nat(60_000) }),
	state.map((expect) => ({ expect })),
	word.map((mark) => ({ mark }))
) as fc.Arbitrary<Step>;

describe('steps in an editor', () => {
	it('come back as they were: every list whose steps look for one thing each', () => {
		fc.assert(
			fc.property(fc.array(step, { maxLength: 8 }), (steps) => {
				const rows = rowsOf(JSON.stringify(steps))!;
				expect(rows).to.have.length(steps.length);
				expect(parseSteps(stepsText(rows))).to.deep.equal(steps);
			})
		);
	});

	it('that no row can show stay as JSON', () => {
		expect(rowsOf('[{"expect": {"selector": "#a", "text": "b"}}]')).to.equal(null);
		expect(rowsOf('[{"jump": 3}]')).to.equal(null);
		expect(rowsOf('{"click": "#a"}')).to.equal(null);
		expect(rowsOf('[{')).to.equal(null);
	});

	it('half typed keep their rows, and the door says what is wrong', () => {
		for (const verb of ROW_VERBS) {
			const row: StepRow = { verb, value: '', text: '', state: 'selector', within: '' };
			const text = stepsText([row]);
			expect(rowsOf(text)?.[0]?.verb, verb).to.equal(verb);
			expect(() => parseSteps(text), verb).to.throw(/^Step 1/);
		}
	});

	it('without any are an empty text', () => {
		expect(stepsText([])).to.equal('');
		expect(rowsOf('  ')).to.deep.equal([]);
	});
});
