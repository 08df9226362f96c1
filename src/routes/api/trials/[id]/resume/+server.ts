import { trialAction } from '$lib/server/http/trialAction';
import { resumeTrial } from '$lib/server/trials/commands';

export const POST = trialAction(resumeTrial);
