/** Whether a machine is fit to measure on, in one plain sentence. */
import type { Fitness } from '../trial/noise/fitness';
import { MOST_ROUNDS } from '../trial/judge/verdict';

export function wordFitness(fitness: Fitness): string {
	switch (fitness.code) {
		case 'unknown':
			return 'Nobody has measured yet how much two runs of the same page differ here.';
		case 'busy':
			return `This machine is too busy: ${fitness.disturbed} of ${fitness.loads} loads of the last day were disturbed.`;
		case 'fit':
			return `This machine is fit: ${fitness.rounds} rounds see a change of ${percent(fitness.share)} in four of five trials.`;
		case 'noisy':
			return fitness.rounds > MOST_ROUNDS
				? `This machine is too noisy: ${MOST_ROUNDS} rounds are too few to see a change of ${percent(fitness.share)}.`
				: `This machine is noisy: to see a change of ${percent(fitness.share)} in four of five trials takes ${fitness.rounds} rounds.`;
	}
}

function percent(share: number): string {
	return `${Math.round(share * 100)}\u00a0%`;
}
