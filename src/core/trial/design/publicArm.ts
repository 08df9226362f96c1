/** An arm as pages and the API show it. */
import type { TrialArm } from '../types';

/** The state of the visitor by its name alone: its cookies and what its steps type are secrets. */
export type PublicArm = Omit<TrialArm, 'before'> & { visitor: string | null };

export function armWithoutSecrets({ before, ...arm }: TrialArm): PublicArm {
	return { ...arm, visitor: before?.name ?? null };
}
