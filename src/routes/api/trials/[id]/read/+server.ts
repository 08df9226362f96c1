import { trialAction } from '../../trialAction';
import { markTrialRead } from '$lib/server/rooms/trials/view';

/** The analyst has seen the answer. */
export const POST = trialAction(markTrialRead);
