/** What came from outside, parsed by its schema; what is wrong with it, at its path. */
import * as v from 'valibot';
import { NotPossible } from './refusal';

export interface Issue {
	path: string;
	message: string;
}

/** What was given does not fit its schema. */
export class Invalid extends NotPossible {
	constructor(readonly issues: readonly Issue[]) {
		super(422, issues[0]?.message ?? '', issues[0]?.path ?? null);
	}
}

export function issuesOf(issues: readonly v.BaseIssue<unknown>[]): Issue[] {
	return issues.map((issue) => {
		const path = v.getDotPath(issue) ?? '';
		// What is not there at all has no message of its own.
		const isMissing = issue.input === undefined && issue.message.startsWith('Invalid key');
		return { path, message: isMissing ? `“${path}” is required.` : issue.message };
	});
}

/**
 * @param fieldOf the field of a form that a path of the schema is typed in
 * @throws Invalid with every issue at its path
 */
export function outputOf<Schema extends v.GenericSchema>(
	result: v.SafeParseResult<Schema>,
	fieldOf = (path: string) => path
): v.InferOutput<Schema> {
	if (result.success) return result.output;
	throw new Invalid(issuesOf(result.issues).map(({ path, message }) => ({ path: fieldOf(path), message })));
}

/** @throws Invalid with every issue at its path, or at the field that it is typed in */
export const parsed = <Schema extends v.GenericSchema>(
	schema: Schema,
	value: unknown,
	fieldOf?: (path: string) => string
): v.InferOutput<Schema> => outputOf(v.safeParse(schema, value), fieldOf);

/** Read text that has a grammar of its own. @throws Invalid at the path with what the reader says */
export function readAt<Value>(path: string, read: () => Value): Value {
	try {
		return read();
	} catch (error) {
		if (error instanceof NotPossible) throw error;
		throw new Invalid([{ path, message: (error as Error).message }]);
	}
}
