import { trialAction } from '../../trialAction';
import { endLog } from '$lib/server/rooms/trials/steps';

/** No further steps for now. */
export const POST = trialAction(endLog);
