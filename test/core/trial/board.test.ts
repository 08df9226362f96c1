import { expect } from 'chai';
import { boardMark, boardMarks, largestDecided } from '$core/trial/judge/board';
import { boardRow, boardWord } from '$core/wording/board';
import { wordsIn } from '$core/wording/words';
import { resultOf } from '../../support/results';

describe('marks of the shift board', () => {
	it('scales a shift and its interval by the margin', () => {
		// The margin of the largest paint is 100 ms.
		const mark = boardMark(resultOf('lcp', 'worse', [250, 150, 400]));
		expect(mark.inMargins).to.deep.equal({ estimate: 2.5, low: 1.5, high: 4 });
		expect(mark.isExact).to.equal(false);
	});

	it('turns a score, where more is better, so that worse is right', () => {
		// Three points are the margin: 9 points lost are 3 margins to the worse.
		const mark = boardMark(resultOf('score', 'worse', [-9, -12, -6]));
		expect(mark.inMargins).to.deep.equal({ estimate: 3, low: 2, high: 4 });
	});

	it('knows a shift that is identical in every round, and one without an interval', () => {
		expect(boardMark(resultOf('wire', 'worse', [39_000, 39_000, 39_000])).isExact).to.equal(true);
		const early = boardMark(resultOf('lcp', 'undecided', [50, null, null]));
		expect(early.inMargins).to.deep.equal({ estimate: 0.5, low: null, high: null });
		expect(early.isExact).to.equal(false);
		expect(boardMark(resultOf('lcp', 'none', [0, 0, 0], { shift: null })).inMargins).to.equal(null);
	});

	it('follows the order of the metrics and leaves out what has no result', () => {
		const results = [resultOf('wire', 'same', [0, 0, 0]), resultOf('lcp', 'same', [1, -9, 9])];
		expect(boardMarks(results, ['lcp', 'cls', 'wire']).map(({ metric }) => metric)).to.deep.equal(['lcp', 'wire']);
	});

	it('finds the largest decided mark, in margins and not in units', () => {
		const marks = boardMarks(
			[
				resultOf('wire', 'worse', [20_000, 20_000, 20_000]),
				resultOf('tbt', 'better', [-250, -300, -200]),
				resultOf('lcp', 'undecided', [900, -100, 1900])
			],
			['wire', 'tbt', 'lcp']
		);
		expect(largestDecided(marks)?.metric).to.equal('tbt');
		expect(largestDecided([])).to.equal(null);
	});

	it('says each mark in a word', () => {
		const word = (...result: Parameters<typeof resultOf>) => boardWord(boardMark(resultOf(...result)));
		expect(word('lcp', 'worse', [200, 150, 300])).to.equal('slower');
		expect(word('score', 'better', [9, 6, 12])).to.equal('better');
		expect(word('tbt', 'slight', [70, 20, 130])).to.equal('slower, size open');
		expect(word('score', 'slight', [2, 1, 5])).to.equal('better, size open');
		expect(word('wire', 'same', [0, 0, 0])).to.equal('identical in every round');
		expect(word('lcp', 'same', [10, -40, 60])).to.equal('no difference that matters');
		expect(word('lcp', 'undecided', [10, -400, 600])).to.equal('undecided');
	});

	it('gives a row its figures, its words and its sentence with the interval', () => {
		const row = boardRow(resultOf('tbt', 'worse', [530, 500, 570]), { arm: 'With chat', baseline: 'Without' });
		expect(row.name).to.equal('Blocking time');
		expect([row.baseline, row.arm]).to.deep.equal(['1.00\u00a0s', '1.53\u00a0s']);
		expect(row.text).to.equal(
			'Total Blocking Time: “With chat” is slower than “Without”: 1.53\u00a0s against 1.00\u00a0s, 530\u00a0ms more (between 500\u00a0ms more and 570\u00a0ms more), 53\u00a0% of 1.00\u00a0s.'
		);
		// What is undecided has its interval and no estimate.
		const open = boardRow(resultOf('lcp', 'undecided', [20, -90, 130]), { arm: 'B', baseline: 'A' });
		expect(open.text).to.match(/undecided after 10 rounds: between 90\u00a0ms less and 130\u00a0ms more/);
		expect(open.text).to.not.include('20\u00a0ms more (');
		const spanish = boardRow(resultOf('lcp', 'undecided', [1, -9, 9]), { arm: 'a', baseline: 'b' }, wordsIn('es'));
		expect([spanish.name, spanish.word]).to.deep.equal(['Renderizado principal', 'sin decidir']);
	});
});
