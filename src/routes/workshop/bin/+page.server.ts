import { getDb } from '$lib/server/context';
import { restoreFrom } from '$lib/server/desk/binForm';
import { formAction } from '$lib/server/http/form';
import { BIN_DAYS, listBin } from '$lib/server/storage/bin';

export const load = () => ({ where: 'Workshop › Bin', binned: listBin(getDb()), days: BIN_DAYS });

export const actions = { restore: formAction((form: FormData) => restoreFrom(getDb(), form)) };
