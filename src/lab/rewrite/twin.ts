/** A page as it came once: each answer with the waiting time that was measured, kept in a folder of the data. */
import { createHash } from 'node:crypto';
import { appendFileSync, existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { IncomingHttpHeaders } from 'node:http';

export interface KeptAnswer {
	url: string;
	status: number;
	headers: IncomingHttpHeaders;
	/** From the request until the first byte of the answer, ms. */
	waitMs: number;
	/** SHA-256 of the body. */
	body: string;
}

/** What only one visitor may get, or a secret of the site (never kept). */
const NEVER_KEPT = new Set(['set-cookie', 'authorization', 'www-authenticate']);

export class Twin {
	#answers = new Map<string, KeptAnswer>();
	#bodies = new Map<string, Buffer>();
	#list: string;

	/** @param folder of this page under these conditions; made where it is not there */
	constructor(private readonly folder: string) {
		mkdirSync(folder, { recursive: true, mode: 0o700 });
		this.#list = join(folder, 'answers.ndjson');
		if (!existsSync(this.#list)) return;
		for (const line of readFileSync(this.#list, 'utf8').split('\n').filter(Boolean)) {
			// A line that a crash cut off was never answered from.
			const kept = readLine(line);
			if (kept && existsSync(join(folder, kept.body))) this.#answers.set(kept.url, kept);
		}
	}

	find(url: string): { kept: KeptAnswer; body: Buffer } | null {
		const kept = this.#answers.get(url);
		if (!kept) return null;
		const body = this.#bodies.get(kept.body) ?? readFileSync(join(this.folder, kept.body));
		this.#bodies.set(kept.body, body);
		return { kept, body };
	}

	/** The first answer stands. */
	keep(url: string, { status, headers, waitMs }: Omit<KeptAnswer, 'url' | 'body'>, body: Buffer): void {
		if (this.#answers.has(url)) return;
		const hash = createHash('sha256').update(body).digest('hex');
		const kept: KeptAnswer = {
			url,
			status,
			headers: Object.fromEntries(Object.entries(headers).filter(([name]) => !NEVER_KEPT.has(name))),
			waitMs,
			body: hash
		};
		if (!existsSync(join(this.folder, hash))) writeFileSync(join(this.folder, hash), body, { mode: 0o600 });
		appendFileSync(this.#list, `${JSON.stringify(kept)}\n`, { mode: 0o600 });
		this.#bodies.set(hash, body);
		this.#answers.set(url, kept);
	}
}

function readLine(line: string): KeptAnswer | null {
	try {
		return JSON.parse(line) as KeptAnswer;
	} catch {
		return null;
	}
}
