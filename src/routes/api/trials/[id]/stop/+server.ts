import { trialAction } from '$lib/server/access/trials';
import { stopTrial } from '$lib/server/queue/trials';

export const POST = trialAction(stopTrial);
