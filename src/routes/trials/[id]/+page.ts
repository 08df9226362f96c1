import { fetchOpened } from './partComponents';

/** Components of the questions that few trials ask: fetched where they are asked. */
export const load = async ({ data, parent }) => {
	const { steps, against, sweep } = await parent();
	const [Steps, Best, PairChooser, Sweep] = await Promise.all([
		steps ? import('./Steps.svelte') : null,
		against === null ? null : import('./BestBoard.svelte'),
		against === null ? null : import('./PairChooser.svelte'),
		sweep ? import('$lib/charts/SweepBoard.svelte') : null
	]);
	return {
		...data,
		components: await fetchOpened(data.shown),
		asked: {
			Steps: Steps?.default ?? null,
			Best: Best?.default ?? null,
			PairChooser: PairChooser?.default ?? null,
			Sweep: Sweep?.default ?? null
		}
	};
};
