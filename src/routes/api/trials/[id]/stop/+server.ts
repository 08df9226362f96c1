import { trialAction } from '../../trialAction';
import { stopTrial } from '$lib/server/rooms/trials/commands';

export const POST = trialAction(stopTrial);
