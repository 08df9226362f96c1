/** The log of all processes: one line of JSON each (pino). `ZAFRA_LOG` sets how much: warn, info, debug. */
import pino from 'pino';

/** What the work of a process says of itself: pino's, or a test's. */
export type Log = Record<'info' | 'warn' | 'error', (data: object, words: string) => void>;

/** @param name which of them writes: web, runner */
export function logOf(name: 'web' | 'runner') {
	return pino({ name, level: process.env.ZAFRA_LOG || 'warn' });
}
