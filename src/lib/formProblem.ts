/** Why a form could not be carried out, where none of its own fields says so. */

interface Answer {
	problem?: string;
	form?: { id: string; errors: { _errors?: string[] } };
}

/**
 * @param answer what an action gave back
 * @param data of the page: a form among it shows its errors at its fields
 * @returns empty where there is nothing to say, or a field says it
 */
export function problemOf(answer: unknown, data: Record<string, unknown>): string {
	const { problem = '', form } = (answer ?? {}) as Answer;
	if (!problem || !form) return problem;
	const hasFields = Object.values(data).some((own) => (own as { id?: unknown } | null | undefined)?.id === form.id);
	return hasFields && !form.errors._errors?.length ? '' : problem;
}
