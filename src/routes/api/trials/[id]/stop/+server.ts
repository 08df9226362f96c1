import { trialAction } from '$lib/server/http/trialAction';
import { stopTrial } from '$lib/server/trials/commands';

export const POST = trialAction(stopTrial);
