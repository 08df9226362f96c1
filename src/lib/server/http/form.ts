/** The door for forms: what cannot be read or carried out becomes an answer in words, at the field. */
import { fail, type ActionFailure, type RequestEvent } from '@sveltejs/kit';
import { NotPossible } from '../base/refusal';
import type { Issue } from './api';

export interface Refused {
	problem: string;
	issues: Issue[];
}

type Act<Event, Result> = (form: FormData, event: Event) => Result | Promise<Result>;

/** @throws NotPossible in words for a body that is no form */
export async function readForm(request: Request): Promise<FormData> {
	try {
		return await request.formData();
	} catch (error) {
		if ((error as { status?: number }).status === 413)
			throw new NotPossible(413, 'What was sent is larger than 64 MB, which is the most that Zafra takes.');
		throw new NotPossible(400, 'The form could not be read. Load this page again and send it once more.');
	}
}

/** A form action; a wish that cannot be carried out comes back with its status and its words. */
export function formAction<Event extends Pick<RequestEvent, 'request' | 'locals'>, Result>(act: Act<Event, Result>) {
	return async (event: Event): Promise<Result | ActionFailure<Refused>> => {
		try {
			return await act(await readForm(event.request), event);
		} catch (error) {
			if (!(error instanceof NotPossible)) throw error;
			return fail(error.status, {
				problem: error.message,
				issues: [{ path: error.path ?? '', message: error.message }]
			});
		}
	};
}

/** Do it, or give what was typed back with why it cannot be done. */
export function withTyped<Typed, Result>(typed: Typed, work: () => Result) {
	try {
		return work();
	} catch (error) {
		if (!(error instanceof NotPossible)) throw error;
		return fail(error.status, { typed, issues: [{ path: error.path ?? '', message: error.message }] });
	}
}

/** Text of a field; a file in its place counts as nothing. */
export function textOf(form: FormData, name: string): string {
	const value = form.get(name);
	return typeof value === 'string' ? value : '';
}

/** @throws NotPossible in words when the field holds no JSON */
export function jsonOf(text: string, path: string): unknown {
	try {
		return JSON.parse(text) as unknown;
	} catch {
		throw new NotPossible(422, 'This field does not hold what the page put there. Load the page again.', path);
	}
}
