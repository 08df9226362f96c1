/** What a lab does for each kind of job. */
import type { JobKind } from '../base/queue/jobs';
import { derive } from './handlers/derive';
import { gather } from './handlers/gather';
import { load } from './handlers/load';
import { render } from './handlers/render';
import { settle } from './handlers/settle';
import type { Handler } from './handler';

const HANDLERS: Partial<Record<JobKind, Handler>> = { load, settle, derive, gather, render };

/** @throws Error for a kind that this lab does not know, as in a database of a newer Zafra */
export function handlerOf(kind: JobKind): Handler {
	const handler = HANDLERS[kind];
	if (!handler) throw new Error(`This lab does not know jobs of the kind “${kind}”.`);
	return handler;
}
