/** The log of all processes: one line of JSON each (pino). `ZAFRA_LOG` sets how much: warn, info, debug. */
import pino from 'pino';

/** @param name which of them writes: web, runner */
export function logOf(name: 'web' | 'runner') {
	return pino({ name, level: process.env.ZAFRA_LOG || 'warn' });
}
