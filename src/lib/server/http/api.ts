/** The shape of the API's answers and errors, and the door for bodies. */
import { json } from '@sveltejs/kit';
import type * as v from 'valibot';
import type { Conditions } from '$core/load/conditions/conditions';
import { parseConditions } from '$core/load/conditions/conditionsInput';
import { isBusy } from '../base/db/connection';
import { Invalid, outputOf, parsed, type Issue } from '../base/parse';
import { NotPossible } from '../base/refusal';

const MOST_BODY_BYTES = 1_000_000;

/** Read a body as JSON and parse it. An absent body counts as `{}` when `optional`. */
export async function readJson<Schema extends v.GenericSchema>(
	request: Request,
	schema: Schema,
	{ optional = false } = {}
): Promise<v.InferOutput<Schema>> {
	return parsed(schema, await readValue(request, optional));
}

/** Conditions as a body; what is left out is usual. */
export const readConditions = async (request: Request): Promise<Conditions> =>
	outputOf(parseConditions(await readValue(request, false)));

async function readValue(request: Request, optional: boolean): Promise<unknown> {
	const text = await readText(request);
	try {
		return text.trim() === '' && optional ? {} : JSON.parse(text);
	} catch {
		throw new NotPossible(400, 'The body is not JSON. Send a JSON object.');
	}
}

/** A body that is too large is read to its end all the same and thrown away: only then does its sender hear why. */
export async function readText(request: Request, mostBytes = MOST_BODY_BYTES): Promise<string> {
	const chunks: Uint8Array[] = [];
	let size = 0;
	const reader = request.body?.getReader();
	for (let part = await reader?.read(); part && !part.done; part = await reader!.read()) {
		size += part.value.length;
		if (size <= mostBytes) chunks.push(part.value);
	}
	if (size > mostBytes) throw new NotPossible(413, `The body is larger than ${mostBytes / 1_000_000} MB.`);
	return Buffer.concat(chunks).toString('utf8');
}

/** Run an endpoint: what goes wrong in a known way becomes an error answer in words. */
export async function answering(work: () => Response | Promise<Response>): Promise<Response> {
	try {
		return await work();
	} catch (error) {
		if (error instanceof Invalid)
			return errorAnswer(error.status, 'The request cannot be carried out as it stands.', error.issues);
		if (error instanceof NotPossible)
			return errorAnswer(error.status, error.message, error.path ? [{ path: error.path, message: error.message }] : []);
		if ((error as { status?: number }).status === 413)
			return errorAnswer(413, 'The body is larger than 64 MB, which is the most that Zafra takes.');
		if (isBusy(error)) return busyAnswer();
		throw error;
	}
}

export const BUSY_WORDS =
	'Zafra is busy: another program keeps its database locked. Nothing is lost; try again in a moment.';
export const RETRY_AFTER_S = '2';

/** Another process holds the database. */
export function busyAnswer(): Response {
	const answer = errorAnswer(503, BUSY_WORDS);
	answer.headers.set('retry-after', RETRY_AFTER_S);
	return answer;
}

export function errorAnswer(status: number, message: string, issues: readonly Issue[] = []): Response {
	return json({ error: { message, issues } }, { status });
}

/** A positive whole number from a URL. @throws NotPossible (404) for anything else */
export function idFrom(text: string | undefined, what: string): number {
	const id = /^[1-9]\d{0,14}$/.test(text ?? '') ? Number(text) : NaN;
	if (Number.isNaN(id)) throw new NotPossible(404, `There is no ${what} “${text?.slice(0, 100)}”.`);
	return id;
}
