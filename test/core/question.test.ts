/** Sixty questions, and whether yes or no answers them: of the variant, of the baseline, of neither. */
import { expect } from 'chai';
import { askedDirection } from '$core/wording/question';

const OLD_NEW = { baseline: 'Old', arm: 'New' };
const CHAT = { baseline: 'Without chat', arm: 'With chat' };
const ADS = { baseline: 'With ads', arm: 'Without ads' };
const STAGES = { baseline: 'Before', arm: 'After Larder' };
const SPANISH = { baseline: 'Tema antiguo', arm: 'Tema nuevo' };

const QUESTIONS: [question: string, compared: typeof OLD_NEW, direction: 'better' | 'worse' | null][] = [
	['Is New slower than Old?', OLD_NEW, 'worse'],
	['Is New faster than Old?', OLD_NEW, 'better'],
	['Is it slower?', OLD_NEW, 'worse'],
	['Is New any lighter?', OLD_NEW, 'better'],
	['Did New make it worse?', OLD_NEW, 'worse'],
	['Has New become less stable than Old?', OLD_NEW, 'worse'],
	['Is Old slower than New?', OLD_NEW, null],
	['Is Old faster?', OLD_NEW, null],
	['Was the old theme faster?', OLD_NEW, null],
	['Was the former theme lighter?', CHAT, null],
	['Was it better before?', CHAT, null],
	['Did it use to be faster? It used to be faster, did it?', CHAT, null],
	['Is it faster than New?', OLD_NEW, null],
	['Is the page heavier than New?', OLD_NEW, null],
	['Does going from Old to New make it slower?', OLD_NEW, null],
	['Are Old and New slower?', OLD_NEW, null],
	['Is New, not Old, slower?', OLD_NEW, null],
	['Is it true that New isn’t slower?', OLD_NEW, null],
	["Isn't New slower than Old?", OLD_NEW, null],
	["Doesn't the chat make it slower?", CHAT, null],
	['Is New never slower?', OLD_NEW, null],
	['Is New no slower than Old?', OLD_NEW, null],
	['Is neither of them slower?', OLD_NEW, null],
	['Is New faster or slower?', OLD_NEW, null],
	['Which is faster?', OLD_NEW, null],
	['How much slower is New?', OLD_NEW, null],
	['Why is New slower?', OLD_NEW, null],
	['New: slower?', OLD_NEW, null],
	['Did adding the chat make the page slower?', CHAT, 'worse'],
	['Does it slow down the page?', CHAT, 'worse'],
	['Did adding the chat make it slower?', { baseline: 'Without chat', arm: 'With Parlour Bell' }, 'worse'],
	['Is the page faster without the chat?', CHAT, null],
	['Is the page more stable without ads?', ADS, 'better'],
	['Is the page lighter with ads?', ADS, null],
	['Does taking the ads off help?', ADS, 'better'],
	['Does it help?', ADS, 'better'],
	['Is it faster than before?', STAGES, 'better'],
	['Did Larder speed up the page?', STAGES, 'better'],
	['Does Larder make the page faster?', STAGES, 'better'],
	['Did Larder hurt?', STAGES, 'worse'],
	['Was it faster before Larder?', { baseline: 'Before', arm: 'After' }, null],
	['¿Es Nuevo más lento que Antiguo?', { baseline: 'Antiguo', arm: 'Nuevo' }, 'worse'],
	['¿Es más lenta la página?', SPANISH, 'worse'],
	['¿Es más rápida que antes?', SPANISH, 'better'],
	['¿Es el tema nuevo más rápido que el tema antiguo?', SPANISH, 'better'],
	['¿Es el tema antiguo más lento que el tema nuevo?', SPANISH, null],
	['¿Era el tema antiguo más rápido?', SPANISH, null],
	['¿Era antes más rápida?', SPANISH, null],
	['¿La página anterior era más ligera?', SPANISH, null],
	['¿Ya no es más lenta?', SPANISH, null],
	['¿No es más lenta?', SPANISH, null],
	['¿Nunca es más lenta?', SPANISH, null],
	['¿Tampoco es mejor?', SPANISH, null],
	['¿Es más rápida o más lenta?', SPANISH, null],
	['¿Cuál es más rápida?', SPANISH, null],
	['¿Qué tema es más rápido?', SPANISH, null],
	['¿Por qué es más lenta?', SPANISH, null],
	['¿Es más estable sin anuncios?', { baseline: 'Con anuncios', arm: 'Sin anuncios' }, 'better'],
	['¿Es más estable sin anuncios?', { baseline: 'Sin anuncios', arm: 'Con anuncios' }, null],
	['¿Mejora la página?', SPANISH, 'better'],
	['¿Empeoró la página?', SPANISH, 'worse']
];

describe('yes and no', () => {
	for (const [question, compared, direction] of QUESTIONS)
		it(`“${question}” of “${compared.arm}” against “${compared.baseline}”: ${direction ?? 'neither'}`, () =>
			expect(askedDirection(question, compared)?.direction ?? null).to.equal(direction));

	it('are tried with sixty questions', () => expect(QUESTIONS).to.have.length.of.at.least(60));
});
