import { fetchOpened } from './partComponents';

/** Components of the two questions that few trials ask: fetched where they are asked. */
export const load = async ({ data, parent }) => {
	const { steps, against } = await parent();
	const [Steps, Best, PairChooser] = await Promise.all([
		steps ? import('./Steps.svelte') : null,
		against === null ? null : import('./BestBoard.svelte'),
		against === null ? null : import('./PairChooser.svelte')
	]);
	return {
		...data,
		components: await fetchOpened(data.shown),
		asked: {
			Steps: Steps?.default ?? null,
			Best: Best?.default ?? null,
			PairChooser: PairChooser?.default ?? null
		}
	};
};
