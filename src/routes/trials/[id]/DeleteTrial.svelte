<script lang="ts">
	/** Asks before a trial is deleted. */
	import { counted } from '$core/wording/format';
	import Confirm from '$lib/parts/Confirm.svelte';

	interface Props {
		loads: number;
		onconfirm: () => void;
		oncancel: () => void;
	}
	let { loads, onconfirm, oncancel }: Props = $props();
</script>

<Confirm open heading="Delete this trial?" action="Delete for good" {onconfirm} {oncancel}>
	<p>Its {counted(loads, 'load')}, their pictures and their evidence go with it. This cannot be undone.</p>
</Confirm>
