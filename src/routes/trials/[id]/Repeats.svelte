<script lang="ts">
	/** The same trial at other times. */
	import { formatMoment } from '$core/wording/format';
	import type { SheetView } from '$lib/server/trials/sheetView';
	import { STATES } from './states';

	interface Props {
		data: SheetView;
	}
	let { data }: Props = $props();
</script>

{#if data.repeats.length}
	<section id="repeats" aria-labelledby="repeats-title">
		<h2 id="repeats-title">The same trial at other times</h2>
		<ul class="plain">
			{#each data.repeats as one (one.id)}
				<li>
					<a href="/trials/{one.id}">{formatMoment(one.createdAt)}</a
					>{#if one.headlines.length}{#each one.headlines as headline (headline.condition + headline.arm)}<div>
								<b>{headline.conditionName}:</b>
								{headline.text}
							</div>{/each}{:else}: {STATES[one.status]?.toLowerCase()}{/if}
				</li>
			{/each}
		</ul>
	</section>
{/if}
