/** Rehearsals in the lab: which loads pass the rewriting server, who trusts it, and what it did. */
import { join } from 'node:path';
import type { LoadOrder } from '$core/load/journey/order';
import type { LoadRecord } from '$core/load/record/record';
import type { HostRule } from '$core/load/requests/hostMap';
import { wordRewrite } from '$core/wording/rewrites';
import type { RunningBrowser } from '../browser/launch';
import { Rewriter, type OpenedRewriting } from './rewriter';
import type { RewritingLog } from './server';

/** Through the server, and nothing else. */
export const UNTOUCHED = { rewrites: [], twin: null } as const;

interface Options {
	trustedKeys?: readonly string[];
	twinsFolder?: string;
}

export class Rewriting {
	#rewriter: Rewriter | null = null;

	constructor(private readonly options: Options) {}

	/** Keys that a browser needs to trust for a load. */
	async keysFor({ rewriting }: LoadOrder): Promise<readonly string[]> {
		const { trustedKeys = [] } = this.options;
		return rewriting ? [...trustedKeys, await this.#running().keyHash()] : trustedKeys;
	}

	/** Whether a browser trusts what the load needs, and no more. */
	async suits({ trusts }: RunningBrowser, order: LoadOrder): Promise<boolean> {
		const keys = await this.keysFor(order);
		return keys.length === trusts.length && keys.every((key) => trusts.includes(key));
	}

	/** Null for a load that passes no rewriting server. @throws Error when it could not be opened */
	async open({ rewriting }: LoadOrder, hostMap: HostRule[]): Promise<OpenedRewriting | null> {
		if (!rewriting) return null;
		const { trustedKeys = [], twinsFolder } = this.options;
		const twin = rewriting.twin !== null && twinsFolder ? join(twinsFolder, rewriting.twin) : null;
		return this.#running().open({ rewrites: rewriting.rewrites, twin, hostMap, trustedKeys });
	}

	async stop(): Promise<void> {
		await this.#rewriter?.stop();
		this.#rewriter = null;
	}

	/** One that ended by itself is started again: the load that it left is made again. */
	#running(): Rewriter {
		if (!this.#rewriter || this.#rewriter.isGone) this.#rewriter = new Rewriter();
		return this.#rewriter;
	}
}

export function noteRewriting(record: LoadRecord, { rewriting }: LoadOrder, log: RewritingLog | null): void {
	if (!rewriting || !log) return;
	record.rewriting = {
		done: rewriting.rewrites.map((rewrite, i) => ({ words: wordRewrite(rewrite), times: log.applied[i] ?? 0 })),
		twin: rewriting.twin !== null,
		requests: log.requests,
		fromTwin: log.fromTwin,
		workMs: Math.round(log.workMs),
		notes: log.notes
	};
}
