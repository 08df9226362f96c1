import { expect } from 'chai';
import fc from 'fast-check';
import * as v from 'valibot';
import { METRIC_IDS } from '$core/metrics/catalogue';
import { ReportDraft, trialsIn } from '$core/report/document';
import { draftOfTrial } from '$core/report/draft';
import { FIGURE_PARTS, formatRef, parseRef } from '$core/report/figureRef';
import { fillIn, isEmptyText, refsIn, RichText, richTextOf } from '$core/report/richText';
import { localNumber } from '$core/wording/localNumber';
import { wordChange, wordFigure, wordShiftIn } from '$core/wording/report';
import { reportWordsIn } from '$core/wording/reportWords';
import { resultOf } from '../../support/results';

const [english, spanish] = [reportWordsIn('en'), reportWordsIn('es')];
const REF = 'trial/3/phone/lcp/2/shift';

describe('references of figures', () => {
	it('are read as they were written, whatever the conditions are called', () => {
		const ref = fc.record({
			trial: fc.nat(),
			condition: fc.string({ minLength: 1 }).filter((text) => text.isWellFormed()),
			metric: fc.constantFrom(...METRIC_IDS),
			arm: fc.nat(),
			part: fc.constantFrom(...FIGURE_PARTS)
		});
		fc.assert(
			fc.property(ref, (item) => {
				expect(parseRef(formatRef(item))).to.deep.equal(item);
			})
		);
	});

	for (const text of [
		'',
		'trial/3/phone/lcp/2',
		`${REF}/x`,
		'trial/x/phone/lcp/2/shift',
		'trial/3/phone/speed/2/shift',
		'load/3/phone/lcp/2/shift',
		'trial/3/phone/lcp/2/median'
	])
		it(`are not “${text}”`, () => expect(parseRef(text)).to.equal(null));
});

describe('words of a report', () => {
	const words: RichText = {
		type: 'doc',
		content: [
			{
				type: 'paragraph',
				content: [
					{ type: 'text', text: '<b>It</b> is ' },
					{ type: 'text', text: 'slower', marks: [{ type: 'bold' }] },
					{ type: 'text', text: ' by ' },
					{ type: 'figure', attrs: { ref: REF } }
				]
			},
			{
				type: 'bulletList',
				content: [
					{ type: 'listItem', content: [{ type: 'paragraph', content: [{ type: 'figure', attrs: { ref: 'none' } }] }] }
				]
			}
		]
	};
	const figureOf = (ref: string) => ({ ref, text: ref === REF ? '420 ms' : '?', about: '', isMissing: ref !== REF });

	it('have their figures filled in, and markup stays text', () => {
		const [paragraph, list] = fillIn(words, figureOf);
		expect(paragraph).to.deep.equal({
			type: 'paragraph',
			content: [
				{ type: 'text', text: '<b>It</b> is ', isBold: false, isItalic: false },
				{ type: 'text', text: 'slower', isBold: true, isItalic: false },
				{ type: 'text', text: ' by ', isBold: false, isItalic: false },
				{ type: 'figure', ref: REF, text: '420 ms', about: '', isMissing: false }
			]
		});
		expect(list).to.deep.equal({
			type: 'list',
			items: [[{ type: 'figure', ref: 'none', text: '?', about: '', isMissing: true }]]
		});
		expect(refsIn(words)).to.deep.equal([REF, 'none']);
	});

	for (const [what, part] of [
		['an image', { type: 'image', attrs: { src: 'x' } }],
		['a link', { type: 'text', text: 'x', marks: [{ type: 'link', attrs: { href: 'javascript:1' } }] }],
		['a script', { type: 'script' }]
	] as const)
		it(`are refused with ${what} in them`, () => {
			expect(
				v.safeParse(RichText, { type: 'doc', content: [{ type: 'paragraph', content: [part] }] }).success
			).to.equal(false);
		});

	it('of plain text are its paragraphs', () => {
		expect(richTextOf('One.\n\n Two. \n\n\n').content).to.have.length(2);
		expect(isEmptyText(richTextOf(' \n\n '))).to.equal(true);
		expect(isEmptyText(words)).to.equal(false);
	});
});

describe('drafts', () => {
	it('of a trial go from the answer to the loads, and ask whether anybody pays', () => {
		const draft = draftOfTrial(7, { title: 'Is it?', language: 'en' }, { hasPrices: false, hasScore: true });
		expect(v.safeParse(ReportDraft, draft).success).to.equal(true);
		expect(draft.blocks.map(({ kind }) => kind)).to.deep.equal(
			'answer board score frames why weight broke recommendations method disclosure appendix'.split(' ')
		);
		expect(draft.disclosure.isPaid).to.equal(null);
		expect(trialsIn(draft)).to.deep.equal([7]);
	});

	it('are refused with two blocks of one id, or without a title', () => {
		const draft = draftOfTrial(7, { title: 'Is it?', language: 'en' }, { hasPrices: true, hasScore: true });
		expect(v.safeParse(ReportDraft, { ...draft, blocks: [draft.blocks[0], draft.blocks[0]] }).success).to.equal(false);
		expect(v.safeParse(ReportDraft, { ...draft, title: '  ' }).success).to.equal(false);
	});
});

describe('figures of reports in words', () => {
	const slower = resultOf('lcp', 'worse', [1420, 1310.4, 1530], { baselineMedian: 2400, armMedian: 3820 });
	const open = resultOf('cls', 'undecided', [0.01, -0.02, 0.04]);
	const points = resultOf('score', 'better', [12, 9.2, 14.8]);
	const share = resultOf('lcp', 'worse', [0.21, 0.18, 0.24], { scale: 'share' });
	const exact = resultOf('requests', 'same', [0, 0, 0]);
	// RAE, Ortografía: a comma before decimals; English as the app has it everywhere.
	for (const [what, result, part, en, es] of [
		['a middle figure', slower, 'variant', '3.82 s', '3,82 s'],
		[
			'a shift with its interval',
			slower,
			'shift',
			'1.42 s more (1.31 s more to 1.53 s more)',
			'1,42 s más (de 1,31 s más a 1,53 s más)'
		],
		['a verdict', slower, 'verdict', 'slower', 'más lenta'],
		['what is undecided', open, 'verdict', 'undecided', 'sin decidir'],
		['an interval over zero', open, 'interval', '0.020 less to 0.040 more', 'de 0,020 menos a 0,040 más'],
		[
			'points',
			points,
			'shift',
			'12.0 points more (9.2 points more to 14.8 points more)',
			'12,0 puntos más (de 9,2 puntos más a 14,8 puntos más)'
		],
		[
			'a share over pages',
			share,
			'shift',
			'21.0 % more (18.0 % more to 24.0 % more)',
			'21,0 % más (de 18,0 % más a 24,0 % más)'
		],
		[
			'what moved in no round',
			exact,
			'shift',
			'unchanged (identical in every round)',
			'sin cambios (idéntico en todas las rondas)'
		],
		[
			'what differs by less than is printed',
			resultOf('wire', 'worse', [39_200, 39_190, 39_210]),
			'shift',
			'39.2 kB more (both ends of its interval round to this)',
			'39,2 kB más (los dos extremos de su intervalo se redondean a esto)'
		]
	] as const)
		it(`tell ${what} in both languages`, () => {
			const told = [english, spanish].map((words) => wordFigure(result, part, words).replaceAll('\u00a0', ' '));
			expect(told).to.deep.equal([en, es]);
		});

	it('have a shift without an interval told as such', () => {
		const few = resultOf('lcp', 'none', [100, null, null]);
		expect(wordShiftIn(few, english)).to.match(/too few rounds for an interval/);
	});

	it('never call a difference of nothing more or less', () => {
		expect(wordChange({ metric: 'lcp', scale: 'unit' }, 0.2, english)).to.equal('unchanged');
	});

	it('write thousands and decimals as the language does', () => {
		expect(localNumber('1,234.5', 'es')).to.equal('1\u00a0234,5');
		expect(localNumber('1,234.5', 'en')).to.equal('1,234.5');
		expect(localNumber('La página, de 2.5', 'es')).to.equal('La página, de 2,5');
	});
});
