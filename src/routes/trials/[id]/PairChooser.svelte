<script lang="ts">
	/** Which two candidates stand against each other. */
	import Choice from '$lib/parts/Choice.svelte';

	interface Props {
		arms: readonly { id: number; name: string }[];
		against: number;
		/** 0: the first of the others. */
		beside: number;
		onchange: (chosen: Record<string, string>) => void;
	}
	let { arms, against, beside, onchange }: Props = $props();
	const named = $derived(arms.map(({ id, name }) => ({ value: id, text: name })));
	const others = $derived(named.filter(({ value }) => value !== against));
	const shown = $derived(others.find(({ value }) => value === beside)?.value ?? others[0]?.value ?? 0);
</script>

<div class="row no-print">
	<Choice
		label="Compare"
		inline
		options={others}
		value={shown}
		onchange={(id) => onchange({ beside: String(id) })}
	/>
	<Choice
		label="with"
		inline
		options={named}
		value={against}
		onchange={(id) => onchange({ against: String(id) })}
	/>
</div>
