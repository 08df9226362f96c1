/** Web's side of the thread for heavy work. */
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { getSettings } from '../context';
import { ROOT } from '../settings';
import type { HeavyArgs, HeavyName, HeavyResult } from './heavyCalls';
import { HeavyThread } from './heavyThread';

let thread: HeavyThread | null = null;

/** Do a piece of heavy work away from the thread that serves pages. @throws NotPossible as the work itself does */
export function heavily<Name extends HeavyName>(name: Name, ...args: HeavyArgs<Name>): Promise<HeavyResult<Name>> {
	const entry = pathToFileURL(join(ROOT, 'src/lib/server/work/heavyWorker.ts')).href;
	thread ??= new HeavyThread(entry, getSettings().dataFolder);
	return thread.call(name, args) as Promise<HeavyResult<Name>>;
}
