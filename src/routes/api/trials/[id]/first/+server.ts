import { trialAction } from '$lib/server/http/trialAction';
import { putFirst } from '$lib/server/trials/commands';

export const POST = trialAction(putFirst);
