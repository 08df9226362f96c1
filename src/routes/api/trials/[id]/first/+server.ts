import { trialAction } from '../../trialAction';
import { putFirst } from '$lib/server/rooms/trials/commands';

export const POST = trialAction(putFirst);
