import { trialAction } from '$lib/server/http/trialAction';
import { pauseTrial } from '$lib/server/trials/commands';

export const POST = trialAction(pauseTrial);
