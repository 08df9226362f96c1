/** Server-sent events: one look at the database for all open pages, only while someone listens. */
import { changeMeter } from '../base/db/changes';
import type { Db } from '../base/db/connection';
import { snapshot } from './labNow';
import { Broadcast, type Listener } from './broadcast';

const LOOK_EVERY_MS = 400;
/** A comment now and then keeps proxies from closing the line. */
const BREATHE_EVERY_MS = 15_000;

const listeners = new Broadcast();
let timer: NodeJS.Timeout | null = null;
let breath: NodeJS.Timeout | null = null;
let last = '';

/** The database is read only when it has changed, and every few seconds for what changes by itself. */
const LOOK_ANYWAY_MS = 5000;
let hasChanged: (() => boolean) | null = null;

/** A database that is locked for a moment is asked again at the next look. */
function look(db: Db): void {
	try {
		hasChanged ??= changeMeter(db, LOOK_ANYWAY_MS);
		if (hasChanged()) currentText(db);
	} catch {
		// Busy.
	}
}

/** @returns how things stand, as every listener has been told */
function currentText(db: Db): string {
	const now = JSON.stringify(snapshot(db));
	if (now !== last) listeners.tell(messageOf(now));
	last = now;
	return messageOf(now);
}

const messageOf = (snapshotText: string) => `event: progress\ndata: ${snapshotText}\n\n`;

export function eventStream(db: Db, signal: AbortSignal): ReadableStream<Uint8Array> {
	const encoder = new TextEncoder();
	let close = () => {};
	return new ReadableStream({
		start(controller) {
			const send: Listener = (message) => controller.enqueue(encoder.encode(message));
			// What is asked first is what may fail: nobody is listed whose stream never began.
			send(currentText(db));
			close = () => {
				listeners.remove(send);
				if (listeners.size === 0 && timer) {
					clearInterval(timer);
					clearInterval(breath!);
					timer = breath = null;
				}
			};
			signal.addEventListener('abort', close);
			listeners.add(send);
			timer ??= setInterval(() => look(db), LOOK_EVERY_MS);
			breath ??= setInterval(() => listeners.tell(': still here\n\n'), BREATHE_EVERY_MS);
		},
		cancel: () => close()
	});
}
