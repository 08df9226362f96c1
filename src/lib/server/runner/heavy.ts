/** Web's side of the thread for heavy work. */
import { builtOr } from '../base/built';
import type { HeavyArgs, HeavyName, HeavyResult } from './heavyCalls';
import { HeavyThread } from './heavyThread';

/** Do a piece of heavy work away from the thread that serves pages. @throws NotPossible as the work itself does */
export type RunHeavy = <Name extends HeavyName>(name: Name, ...args: HeavyArgs<Name>) => Promise<HeavyResult<Name>>;

/** The thread begins with the first call. @param folder of the data */
export function heavyWork(folder: string): RunHeavy {
	const thread = new HeavyThread(builtOr('processes/heavy.mjs', 'src/lib/server/runner/heavyWorker.ts'), folder);
	return <Name extends HeavyName>(name: Name, ...args: HeavyArgs<Name>) =>
		thread.call(name, args) as Promise<HeavyResult<Name>>;
}
