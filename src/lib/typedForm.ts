/** Forms that lose nothing: what was typed stays on an error, when the server does not answer, and when news arrive. */
import { applyAction } from '$app/forms';
import { afterNavigate } from '$app/navigation';
import { page } from '$app/state';
import { untrack } from 'svelte';
import { derived, get } from 'svelte/store';
import { superForm, type SuperValidated } from 'sveltekit-superforms';
import { errorAt } from './firstError';
import { live } from './live.svelte';

interface Options {
	/** Its rows and nested fields go along. */
	isNested?: boolean;
	/** What the form is about, where the path does not say: about another, it begins anew. */
	about?: () => unknown;
	/** It is for one after the other: once one is in, it is as it was at first. */
	isRepeated?: boolean;
	/** What follows an answer that is no error. */
	done?: () => void;
}

/** For a form with fields; a button is `keepTyped`. `$wrong(path)` says what is wrong with a field or a row of it. */
export function typedForm<Typed extends Record<string, unknown>>(
	first: () => SuperValidated<Typed>,
	{ isNested = false, about = () => page.url.pathname, isRepeated = false, done }: Options = {}
) {
	const made = superForm(untrack(first), {
		dataType: isNested ? 'json' : 'form',
		resetForm: isRepeated,
		// Its own answers alone: the page may be brought up to date while somebody types.
		applyAction: 'never',
		// Which button was pressed is part of what a form says; a form with rows sends its data alone.
		onSubmit: ({ submitter, jsonData }) => {
			const pressed = submitter instanceof HTMLButtonElement ? submitter : null;
			if (isNested && pressed?.name) jsonData({ ...get(made.form), [pressed.name]: pressed.value });
		},
		// What the server says is no Error: one was thrown here, since nobody answered. The page stays as it is.
		onError: ({ result }) =>
			(result.error as unknown) instanceof Error ? live.noteUnreachable() : void applyAction(result),
		onUpdated: ({ form }) => form.valid && done?.(),
		onResult: ({ result }) => result.type === 'redirect' && done?.()
	});
	let last = untrack(about);
	afterNavigate(() => {
		if (about() === last) return;
		last = about();
		made.reset({ data: first().data });
	});
	const wrong = derived(made.errors, (errors) => (path: string) => errorAt(errors, path));
	/** Messages that stand at fields; the page says those of the form itself. */
	const atFields = derived(made.allErrors, (all) => all.filter(({ path }) => path !== '_errors').length);
	return { ...made, wrong, atFields };
}
