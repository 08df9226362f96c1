<script lang="ts">
	/** What visitors have on a page, one line a device; nothing where no source knows it. */
	import { metricOf } from '$core/metrics/catalogue';
	import { formatValue } from '$core/wording/format';
	import type { FieldOfAddress } from '$lib/server/rooms/field/view';

	let { rows }: { rows: FieldOfAddress } = $props();
	const SHOWN = ['lcp', 'inp', 'cls'] as const;
	const NAMES = { phone: 'Phones', desktop: 'Desktops' };
</script>

{#each rows as row (row.device)}
	<p class="small">
		<b>{NAMES[row.device]}, visitors:</b>
		{row.words}
		<span class="muted"
			>({SHOWN.flatMap((id) => {
				const p75 = row.p75[id];
				return p75 === undefined ? [] : [`${metricOf(id).short} ${formatValue(id, p75)}`];
			}).join(', ')}; {row.scopeWords})</span
		>
	</p>
{/each}

<style>
	p {
		margin: 0 0 var(--gap-2);
	}
</style>
