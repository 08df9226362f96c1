import { isMatrix } from './boardShape';
import { fetchOpened } from './partComponents';

/** Components of the questions that few trials ask: fetched where they are asked. */
export const load = async ({ data, parent }) => {
	const { steps, against, sweep, boards } = await parent();
	const [Steps, Best, PairChooser, Sweep, Matrix] = await Promise.all([
		steps ? import('./Steps.svelte') : null,
		against === null ? null : import('./BestBoard.svelte'),
		against === null ? null : import('./PairChooser.svelte'),
		sweep ? import('$lib/charts/SweepBoard.svelte') : null,
		!steps && against === null && !sweep && boards.some(isMatrix) ? import('$lib/charts/ShiftMatrix.svelte') : null
	]);
	return {
		...data,
		components: await fetchOpened(data.shown),
		asked: {
			Steps: Steps?.default ?? null,
			Best: Best?.default ?? null,
			PairChooser: PairChooser?.default ?? null,
			Sweep: Sweep?.default ?? null,
			Matrix: Matrix?.default ?? null
		}
	};
};
