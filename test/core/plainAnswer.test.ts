import { expect } from 'chai';
import type { ShiftResult } from '$core/trial/types';
import { groupedAnswers, plainAnswer, plainNoise } from '$core/wording/plainAnswer';
import { askedDirection } from '$core/wording/question';
import { wordsIn } from '$core/wording/words';
import { resultOf } from '../support/results';

const NAMES = { arm: 'With chat', baseline: 'Without' };
const slower = resultOf('lcp', 'worse', [300, 200, 400]);
const faster = resultOf('lcp', 'better', [-300, -400, -200]);
const heavier = resultOf('wire', 'worse', [39_000, 39_000, 39_000]);
const unstable = resultOf('cls', 'worse', [0.06, 0.05, 0.07]);
const worseScore = resultOf('score', 'worse', [-11, -15, -8]);
const open = resultOf('lcp', 'undecided', [20, -300, 400], { roundsNeeded: 15 });
const slight = resultOf('tbt', 'slight', [70, 20, 130]);
const same = resultOf('lcp', 'same', [3, -40, 50]);
/** Beyond chance, and within the margin. */
const hardly = resultOf('lcp', 'same', [40, 10, 80]);
const answer = (question: string, ...results: ShiftResult[]) => plainAnswer(question, { results, names: NAMES });

describe('what a question asks', () => {
	const cases: [string, string | null][] = [
		['Did adding the chat make the timetable slower?', 'worse'],
		['Does Larder make the page faster?', 'better'],
		['Is the new build any lighter?', 'better'],
		['Has it become less stable?', 'worse'],
		['Does it help?', 'better'],
		['¿Hizo el chat más lenta la página?', 'worse'],
		['¿Cuál es más rápida?', null],
		['Which plugin makes the home page faster?', null],
		['How much slower is it?', null],
		['Is it faster or slower?', null],
		['Does it not make it slower?', null],
		['Do the ads weigh much?', null],
		['Timetable, slower?', null],
		['Does the lightbox load?', null],
		['Does the help page pass?', null],
		['Is the breakfast page small?', null],
		['¿Aceleró Larder la página?', 'better'],
		['¿Es peor que antes?', 'worse']
	];
	for (const [question, direction] of cases)
		it(`reads “${question}”`, () => expect(askedDirection(question)?.direction ?? null).to.equal(direction));

	it('asks of speed alone with a word of speed', () => {
		expect(askedDirection('Is it slower?')!.metrics)
			.to.include.members(['lcp', 'tbt', 'score'])
			.and.not.include('wire');
		expect(askedDirection('Is it heavier?')!.metrics).to.include('wire').and.not.include('lcp');
		expect(askedDirection('Is it worse?')!.metrics).to.include.members(['wire', 'cls', 'lcp']);
	});
});

describe('the answer for a client', () => {
	it('says yes when what was asked is decided so, speed first, then weight, then steadiness', () => {
		const { sentence, tone } = answer('Is it slower?', worseScore, unstable, heavier, slower);
		expect(sentence).to.equal('Yes. “With chat” is slower, heavier and less stable than “Without”.');
		expect(tone).to.equal('worse');
	});

	it('says no when the opposite is decided, or no difference is', () => {
		expect(answer('Is it slower?', faster).sentence).to.equal('No. “With chat” is faster than “Without”.');
		expect(answer('Is it slower?', same).sentence).to.match(/^No\. .*no difference that matters\.$/);
	});

	it('says hardly of a shift beyond chance that does not matter, in the asked direction only', () => {
		expect(answer('Is it slower?', hardly).sentence).to.match(/^Hardly\./);
		expect(answer('Is it faster?', hardly).sentence).to.match(/^No\./);
	});

	it('says neither where the question is open, two-sided, or decided both ways', () => {
		expect(answer('Is it slower?', open, heavier).sentence).to.match(/^Not decided yet\. “With chat” is heavier/);
		expect(answer('Is it slower?', open).sentence).to.equal(
			'Not decided whether “With chat” differs from “Without” in largest paint.'
		);
		expect(answer('Is it slower?', slight, same).sentence).to.equal(
			'“With chat” is slower in blocking time than “Without”; by how much is open.'
		);
		expect(answer('Which is faster?', slower).sentence).to.match(/^“With chat” is slower/);
		const both = answer('Is it worse?', faster, heavier);
		expect(both.sentence).to.equal('“With chat” is faster, but heavier than “Without”.');
		expect(both.tone).to.equal('mixed');
	});

	it('does not answer a question of speed by weight', () => {
		expect(answer('Is it slower?', heavier, same).sentence).to.equal(
			'No. No difference that matters in largest paint. “With chat” is heavier than “Without”.'
		);
	});

	it('begins with what was asked where something else differs', () => {
		const steady = resultOf('cls', 'same', [0, -0.001, 0.001]);
		expect(answer('Is the page more stable?', steady, faster).sentence).to.equal(
			'No. No difference that matters in layout shift. “With chat” is faster than “Without”.'
		);
	});

	it('calls it faster only where every time is faster or the same, and names the metric else', () => {
		const blocking = resultOf('tbt', 'better', [-300, -400, -200]);
		const later = resultOf('lcp', 'undecided', [1200, -100, 2500], { roundsNeeded: 20 });
		expect(answer('Is it faster?', blocking, later).sentence).to.equal(
			'“With chat” is faster in blocking time than “Without”.'
		);
		expect(answer('Is it faster?', blocking, same).sentence).to.match(/^Yes\. “With chat” is faster than/);
		expect(answer('Is it faster?', blocking, slower).sentence).to.equal(
			'“With chat” is faster in blocking time, but slower in largest paint than “Without”.'
		);
	});

	it('says of an interval without zero that all together are not beyond chance', () => {
		const alone = resultOf('lcp', 'undecided', [120, 10, 230], { roundsNeeded: 20 });
		expect(answer('Is it slower?', alone).sentence).to.equal(
			'What “With chat” shows against “Without” in largest paint is not beyond chance over all that the trial decides on together.'
		);
	});

	it('names the largest decided shift, and no figure of what is not decided', () => {
		const { detail } = answer('Is it slower?', slower, heavier, resultOf('tbt', 'undecided', [70, -90, 230]));
		// 39 kB are 3.9 margins of 10 kB, 300 ms are 3 of 100.
		expect(detail).to.match(/^Largest difference: bytes transferred, 39\.0\u00a0kB more\./);
		expect(detail).to.match(/Blocking time is not decided\.$/);
		expect(detail).to.not.match(/70|230/);
		expect(answer('Is it faster?', faster).detail).to.equal('Largest difference: largest paint, 300\u00a0ms less.');
	});

	it('says what would decide the rest', () => {
		expect(answer('Is it slower?', open).detail).to.equal(
			'About 15 rounds in all would probably decide largest paint.'
		);
		const beyond = { ...open, roundsNeeded: 500 };
		expect(answer('Is it slower?', beyond).detail).to.match(
			/More than 200 rounds would be needed to decide largest paint:/
		);
	});

	it('gives the reason where there is no verdict', () => {
		const failed = resultOf('lcp', 'none', [0, null, null], {
			shift: null,
			reason: { code: 'failures', failed: 5, loads: 10, arm: 'With chat' }
		});
		const { sentence, tone } = answer('Is it slower?', failed);
		expect(sentence).to.equal('No verdict on “With chat”. 5 of 10 loads of “With chat” failed.');
		expect(tone).to.equal('none');
	});

	it('says how the figures stand to their targets, and of what is open only where both stand alike', () => {
		const standing = (result: ShiftResult, stands: 'both-met' | 'crosses' | 'both-missed') => ({
			...result,
			target: { value: 1100, standing: stands }
		});
		const { detail } = answer('Is it slower?', standing(slower, 'crosses'), standing(unstable, 'both-missed'));
		expect(detail).to.match(/Both miss the target: layout shift\. Only “Without” meets the target: largest paint\.$/);
		expect(answer('Is it?', standing(open, 'crosses')).detail).to.not.match(/target/);
		expect(answer('Is it?', standing(open, 'both-met')).detail).to.match(/Both meet the target: largest paint\.$/);
	});

	it('speaks Spanish to a client who does', () => {
		const { sentence, detail } = plainAnswer('¿Es más lenta?', {
			results: [slower],
			names: NAMES,
			words: wordsIn('es')
		});
		expect(sentence).to.equal('Sí. «With chat» es más lenta que «Without».');
		expect(detail).to.equal('La mayor diferencia: renderizado principal, 300\u00a0ms más.');
	});

	it('says of many variants what differs, and names the rest together', () => {
		const item = (label: string, tone: 'better' | 'same' | 'undecided') => ({
			label,
			tone,
			sentence: `About ${label}.`
		});
		const grouped = groupedAnswers([item('A', 'same'), item('B', 'better'), item('C', 'undecided'), item('D', 'same')]);
		expect(grouped).to.deep.equal([
			{ sentence: 'About B.', tone: 'better' },
			{ sentence: 'Not decided: C.', tone: 'undecided' },
			{ sentence: 'No difference that matters: A and D.', tone: 'same' }
		]);
	});

	it('tells two runs of the same page in one short sentence, with the floor behind it', () => {
		const { sentence, detail } = plainNoise([same]);
		expect(sentence).to.equal('No difference was found between two runs of the same page.');
		expect(detail).to.match(/largest paint 50\u00a0ms/);
		expect(plainNoise([slower]).tone).to.equal('worse');
	});
});
