import { trialAction } from '$lib/server/access/trials';
import { resumeTrial } from '$lib/server/queue/trials';

export const POST = trialAction(resumeTrial);
