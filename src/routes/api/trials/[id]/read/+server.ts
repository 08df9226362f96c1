import { trialAction } from '$lib/server/access/trials';
import { markTrialRead } from '$lib/server/db/trials';

/** The analyst has seen the answer. */
export const POST = trialAction(markTrialRead);
