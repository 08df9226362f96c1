/** A wish that the state of things does not allow; worded for the analyst. */
export class NotPossible extends Error {
	constructor(
		readonly status: 400 | 404 | 409 | 413 | 422,
		message: string,
		readonly path: string | null = null
	) {
		super(message);
	}
}
