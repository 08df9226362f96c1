/** Questions to a thread, each answered by its number. */
import type { Worker } from 'node:worker_threads';
import { startThread } from './thread';

interface Numbered {
	id: number;
}

export class ThreadTalk<Request extends object, Reply extends Numbered & { error?: string }> {
	#worker: Worker;
	#waiting = new Map<number, (reply: Reply) => void>();
	#next = 1;
	#gone = false;

	constructor(entry: URL) {
		this.#worker = startThread(entry);
		this.#worker.on('message', (reply: Reply) => {
			this.#waiting.get(reply.id)?.(reply);
			this.#waiting.delete(reply.id);
		});
		this.#worker.on('error', (error) => this.#end(error.message));
		this.#worker.on('exit', () => {
			this.#gone = true;
			this.#end('its thread ended');
		});
	}

	get isGone(): boolean {
		return this.#gone;
	}

	/** Of what is opened: what is asked about it later names it so. */
	newId(): number {
		return this.#next++;
	}

	/** What has no answer any more is answered with what went wrong. @param id of what it is about; its own without */
	ask(request: Request, id = this.newId()): Promise<Reply> {
		if (this.#gone) return Promise.resolve({ id, error: 'its thread ended' } as Reply);
		return new Promise((resolve) => {
			this.#waiting.set(id, resolve);
			this.#worker.postMessage({ ...request, id });
		});
	}

	async stop(): Promise<void> {
		await this.#worker.terminate();
	}

	#end(error: string): void {
		for (const [id, settle] of this.#waiting) settle({ id, error } as Reply);
		this.#waiting.clear();
	}
}
