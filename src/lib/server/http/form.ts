/** The door for forms: what cannot be read or carried out comes back with what was typed, at the field. */
import { fail, type RequestEvent } from '@sveltejs/kit';
import { decode } from 'decode-formdata';
import { setError, superValidate, type SuperValidated } from 'sveltekit-superforms';
import { valibot } from 'sveltekit-superforms/adapters';
import * as v from 'valibot';
import { firstError } from '../../firstError';
import { Invalid, type Issue } from '../base/parse';
import { NotPossible } from '../base/refusal';

/** A form's fields as they are typed: texts, ticks, lists and rows of them. */
export type Fields = v.ObjectSchema<v.ObjectEntries, v.ErrorMessage<v.ObjectIssue> | undefined>;
export type Typed<F extends Fields> = v.InferOutput<F>;
export type Form<F extends Fields> = SuperValidated<Typed<F>>;

/** A form as a page shows it first. */
export const formOf = <F extends Fields>(fields: F, typed?: Partial<Typed<F>>): Promise<Form<F>> =>
	superValidate(typed, valibot(fields), { errors: false }) as Promise<Form<F>>;

/**
 * An action of a form. What it gives goes to the page beside the form; a wish that cannot be carried out comes back
 * with its status, what was typed, and its words at their fields.
 */
export function formAction<F extends Fields, Event extends Pick<RequestEvent, 'request'>, Result extends object | void>(
	fields: F,
	act: (typed: Typed<F>, event: Event, body: FormData) => Result | Promise<Result>
) {
	return async (event: Event) => {
		let form = await formOf(fields);
		try {
			const body = await readForm(event.request);
			form = await typedIn(body, fields);
			if (!form.valid) return fail(422, { form, problem: firstError(form.errors) });
			return { ...(await act(form.data, event, body)), form };
		} catch (error) {
			if (!(error instanceof NotPossible)) throw error;
			const issues = error instanceof Invalid ? error.issues : [{ path: error.path ?? '', message: error.message }];
			for (const issue of issues) setError(form, pathAmong(issues, issue), issue.message);
			return fail(error.status, { form, problem: error.message });
		}
	};
}

const UNREADABLE = 'The form could not be read. Load this page again and send it once more.';

/** @throws NotPossible in words for a body that is no form */
export async function readForm(request: Request): Promise<FormData> {
	try {
		return await request.formData();
	} catch (error) {
		if ((error as { status?: number }).status === 413)
			throw new NotPossible(413, 'What was sent is larger than 64 MB, which is the most that Zafra takes.');
		throw new NotPossible(400, UNREADABLE);
	}
}

/**
 * Rows come as superforms sends them, or, from a page without scripts, by the names of their fields.
 * @throws NotPossible for what no page of ours sends
 */
function typedIn<F extends Fields>(body: FormData, fields: F): Promise<Form<F>> {
	const given = body.has(NESTED) ? checkNested(body) : decoded(body, shapesOf(fields));
	return superValidate(given as FormData, valibot(fields)) as Promise<Form<F>>;
}

/** What superforms sends rows in. */
const NESTED = '__superform_json';
/** How its encoding (devalue) begins a list of which it says no more than how long it is. */
const SPARSE = -7;

/** A list of holes takes the memory of as many rows. @throws NotPossible for one, and for what is no JSON */
function checkNested(body: FormData): FormData {
	try {
		const parts = JSON.parse(body.getAll(NESTED).join('')) as unknown;
		if (Array.isArray(parts) && !parts.some((part) => Array.isArray(part) && part[0] === SPARSE)) return body;
	} catch {
		// As what holds no list.
	}
	throw new NotPossible(400, UNREADABLE);
}

/** @throws NotPossible for names that contradict each other, and for a row beyond all others */
function decoded(body: FormData, shapes: Shapes): object {
	// A row of such a number would make a list of as many.
	if ([...body.keys()].some((name) => /\.\d{4,}(\.|$)/.test(name))) throw new NotPossible(400, UNREADABLE);
	try {
		return decode(ticked(body, shapes), shapes);
	} catch {
		throw new NotPossible(400, UNREADABLE);
	}
}

/** A tick that is sent is on, whatever its value says. */
function ticked(body: FormData, { booleans }: Shapes): FormData {
	for (const name of booleans) if (body.has(name)) body.set(name, 'on');
	return body;
}

/** An issue of a list beside one of its rows belongs to the list itself. */
function pathAmong(issues: readonly Issue[], { path }: Issue): never {
	const hasDeeper = path !== '' && issues.some((other) => other.path.startsWith(`${path}.`));
	return (hasDeeper ? `${path}._errors` : path) as never;
}

interface Shapes {
	arrays: string[];
	booleans: string[];
	numbers: string[];
}

/** Paths of what is no text. */
function shapesOf(fields: v.GenericSchema, at = '', found: Shapes = { arrays: [], booleans: [], numbers: [] }): Shapes {
	const schema = bareOf(fields);
	if (schema.type === 'boolean') found.booleans.push(at);
	if (schema.type === 'number') found.numbers.push(at);
	if (schema.type === 'array') {
		found.arrays.push(at);
		shapesOf((schema as unknown as { item: v.GenericSchema }).item, `${at}.$`, found);
	}
	if (schema.type === 'object')
		for (const [name, entry] of Object.entries((schema as unknown as { entries: v.ObjectEntries }).entries))
			shapesOf(entry as v.GenericSchema, at ? `${at}.${name}` : name, found);
	return found;
}

const bareOf = (schema: v.GenericSchema): v.GenericSchema =>
	'wrapped' in schema ? bareOf(schema.wrapped as v.GenericSchema) : schema;
