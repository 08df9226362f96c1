/** Which figures may be shown side by side: those of a look. Between looks a comparison would be an answer. */
import { hasStages } from '../design/kinds';
import type { TrialDesign, TrialLoad } from '../types';

/** Whether the figures of a load may stand beside those of other arms. Single loads may be opened at any time. */
export function isShown(
	{ kind, looks = [] }: Pick<TrialDesign, 'kind' | 'looks'>,
	load: Pick<TrialLoad, 'stage' | 'round' | 'warmup'>
): boolean {
	// The first stage is compared with nothing: the baseline may be seen at any time.
	if (hasStages(kind))
		return (
			load.stage === 0 || looks.some((look) => look.stage === load.stage && (load.warmup || load.round <= look.rounds))
		);
	const reached = looks.at(-1)?.rounds ?? 0;
	return load.warmup ? reached > 0 : load.round <= reached;
}
