<script lang="ts">
	/** Words that a listed request has; the list follows once nobody types for a moment. */
	import { untrack } from 'svelte';
	import { Search } from 'carbon-components-svelte';

	interface Props {
		value: string;
		onchange: (value: string) => void;
	}
	let { value, onchange }: Props = $props();
	const TYPING_MS = 150;
	let typed = $state(untrack(() => value));
	let timer: ReturnType<typeof setTimeout> | undefined;
	/** What was passed on last: another value comes from elsewhere. */
	let sent = untrack(() => value);
	$effect(() => {
		if (value !== sent) typed = sent = value;
	});
	function set(next: string | null | undefined) {
		typed = String(next ?? '');
		clearTimeout(timer);
		timer = setTimeout(() => {
			if (typed === sent) return;
			sent = typed;
			onchange(typed);
		}, TYPING_MS);
	}
</script>

<Search
	size="sm"
	labelText="Find requests"
	placeholder="Address, type, status"
	bind:value={() => typed, (next) => next !== typed && set(next)}
/>
