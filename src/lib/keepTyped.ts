/** Forms that lose nothing: what was typed stays on an error, and when the server does not answer. */
import { applyAction, enhance } from '$app/forms';
import { live } from './live.svelte';

interface Options {
	/** What follows an answer that is no error. */
	done?: () => void;
}

/** Like `enhance`, for every form of the app. */
export function keepTyped(form: HTMLFormElement, options: Options = {}) {
	return enhance(form, () => async ({ result, update }) => {
		// Without a status nobody answered: the page stays as it is and the line above says so.
		if (result.type === 'error' && result.status === undefined) {
			live.noteUnreachable();
			return;
		}
		if (result.type === 'error') return applyAction(result);
		await update({ reset: false });
		if (result.type !== 'failure') options.done?.();
	});
}
