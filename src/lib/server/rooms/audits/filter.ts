/** What of the worklist is shown, as an address says it. */
import { isFindingState } from './commands';
import type { WorklistFilter } from './queries/findings';

const numberIn = (params: URLSearchParams, name: string): number | null => Number(params.get(name)) || null;

export function worklistFilterOf(params: URLSearchParams): { filter: WorklistFilter; rows: number } {
	const state = params.get('state') ?? '';
	return {
		filter: {
			clientId: numberIn(params, 'client'),
			state: isFindingState(state) ? state : '',
			rule: params.get('rule') ?? '',
			words: params.get('q') ?? '',
			page: numberIn(params, 'page')
		},
		rows: Math.max(1, numberIn(params, 'rows') ?? 1)
	};
}
