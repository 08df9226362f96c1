import { trialAction } from '$lib/server/http/trialAction';
import { markTrialRead } from '$lib/server/trials/queries';

/** The analyst has seen the answer. */
export const POST = trialAction(markTrialRead);
