<script lang="ts">
	/** Offered, never done by itself: a history parts where its conditions change. */
	import type { ChangedConditions } from '$lib/server/rooms/watch/conditions';
	import Action from './Action.svelte';

	interface Props {
		changed: readonly ChangedConditions[];
		/** "this watch", "this standing". */
		what: string;
		/** What is parted: "readings", "runs". */
		parts: string;
	}
	let { changed, what, parts }: Props = $props();
</script>

{#if changed.length}
	<section class="panel" aria-labelledby="moved-conditions">
		<h2 id="moved-conditions">Not under the conditions of the workshop any more</h2>
		<ul class="plain">
			{#each changed as { id, name, before, now } (id)}<li>
					<b>{name}</b>: here {before}; in the workshop {now}
				</li>{/each}
		</ul>
		<p class="muted">
			{what[0]!.toUpperCase()}{what.slice(1)} goes on under the conditions that it began with. Once it is moved, {parts}
			from before and after are not compared: the history parts there, and changes are called again after a few {parts}.
		</p>
		<Action action="?/move" text="Move to the present conditions" kind="tertiary" size="small" />
	</section>
{/if}
