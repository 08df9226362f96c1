import { trialAction } from '../../trialAction';
import { resumeTrial } from '$lib/server/rooms/trials/commands';

export const POST = trialAction(resumeTrial);
