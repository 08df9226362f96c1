/** What a page shows; what is not there is told as a page is. */
import { error } from '@sveltejs/kit';
import { NotPossible } from '../base/refusal';

export function pageOr404<Data>(load: () => Data): Data {
	try {
		return load();
	} catch (problem) {
		if (problem instanceof NotPossible) error(problem.status, problem.message);
		throw problem;
	}
}
