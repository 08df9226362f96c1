/** What a lab is asked for, whoever asks. */
import type { Conditions } from './conditions';
import type { Step } from './steps';

export interface LoadOrder {
	url: string;
	conditions: Conditions;
	/** Done once the page has settled. */
	steps: readonly Step[];
}
