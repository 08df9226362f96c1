/** The first message in the errors of a form as superforms has them, or below one of its fields; empty for none. */
export function firstError(errors: unknown): string {
	if (typeof errors === 'string') return errors;
	if (typeof errors !== 'object' || errors === null) return '';
	const { _errors, ...rest } = errors as Record<string, unknown>;
	return firstError(_errors) || Object.values(rest).map(firstError).find(Boolean) || '';
}

/** At or below a path, `prices.0.tier`; those of the form itself for an empty one. */
export function errorAt(errors: unknown, path: string): string {
	const keys = path ? path.split('.') : ['_errors'];
	return firstError(
		keys.reduce<unknown>((found, key) => (found as Record<string, unknown> | undefined)?.[key], errors)
	);
}
