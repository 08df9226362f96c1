/** Where a load belongs in its trial. */
export interface LoadPlace {
	armId: number;
	/** Key of the conditions within the trial: `phone`. */
	conditionId: string;
	/** From 0; 0 for all loads of a trial without stages. */
	stage: number;
	/** From 1; warm-ups count on their own, from 1 too; 0 for the wait for a stable page. */
	round: number;
	warmup: boolean;
}
