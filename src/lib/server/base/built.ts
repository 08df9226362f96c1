/** Where Zafra's own files lie: in the build, or among the sources where nothing was built. */
import { join } from 'node:path';
import { isBuilt } from '../../../lab/thread';
import { ROOT } from './settings';

/** @param built within `build` @param source within the checkout */
export const builtOr = (built: string, source: string): string =>
	isBuilt ? join(ROOT, 'build', built) : join(ROOT, source);
