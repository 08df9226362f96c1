import { trialAction } from '../../trialAction';
import { pauseTrial } from '$lib/server/rooms/trials/commands';

export const POST = trialAction(pauseTrial);
