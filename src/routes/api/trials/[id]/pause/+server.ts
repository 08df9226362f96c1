import { trialAction } from '$lib/server/access/trials';
import { pauseTrial } from '$lib/server/queue/trials';

export const POST = trialAction(pauseTrial);
