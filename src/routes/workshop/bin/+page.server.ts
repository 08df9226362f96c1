import { restoreAction } from '$lib/server/desk/binForm';
import { BIN_DAYS, listBin } from '$lib/server/base/storage/bin';

export const load = ({ locals }) => ({ where: 'Workshop › Bin', binned: listBin(locals.db), days: BIN_DAYS });

export const actions = { restore: restoreAction };
