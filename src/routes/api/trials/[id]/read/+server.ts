import { trialAction } from '../../trialAction';
import { markTrialRead } from '$lib/server/rooms/trials/queries';

/** The analyst has seen the answer. */
export const POST = trialAction(markTrialRead);
