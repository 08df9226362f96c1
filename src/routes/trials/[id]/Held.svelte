<script lang="ts">
	/** What each arm holds back until somebody moves. */
	import { enhance } from '$app/forms';
	import { formatBytes, formatDifference, formatDuration } from '$core/wording/format';
	import type { SheetView } from '$lib/server/trials/sheetView';
	import Scroller from '$lib/parts/Scroller.svelte';

	interface Props {
		data: SheetView;
	}
	let { data }: Props = $props();
	const compared = $derived(data.arms.filter((arm) => !arm.reference));
	const nameOf = (id: number) => data.arms.find((arm) => arm.id === id)?.name ?? '';
	const conditionName = (id: string) => data.conditions.find((one) => one.id === id)?.name ?? id;
	const scoreWith = (one: SheetView['nudged'][number]) => {
		const score = one.heldBack?.figuresWith.score ?? null;
		return score === null
			? '–'
			: `${score.toFixed(0)} (${formatDifference('score', score - (one.score ?? 0))})`;
	};
</script>

<section id="held" class="no-print" aria-labelledby="held-title">
	<h2 id="held-title">Held back</h2>
	{#if data.nudged.length}
		<Scroller label="What the arms hold back">
			<table class="ledger">
				<thead
					><tr
						><th scope="col">Arm</th><th scope="col">Conditions</th><th scope="col" class="number">Requests</th
						><th scope="col" class="number">Bytes</th><th scope="col" class="number">Script</th><th
							scope="col"
							class="number">Score with it</th
						><th scope="col">Load</th></tr
					></thead
				>
				<tbody>
					{#each data.nudged as one (one.id)}
						<tr>
							<td>{nameOf(one.arm ?? 0)}</td><td>{conditionName(one.condition)}</td>
							{#if one.heldBack}
								<td class="number">{one.heldBack.requests}</td><td class="number"
									>{formatBytes(one.heldBack.wireBytes)}</td
								><td class="number">{formatDuration(one.heldBack.scriptMs)}</td>
								<td class="number">{scoreWith(one)}</td>
							{:else}<td colspan="4" class="muted"
									>{one.failed ?? (one.status === 'done' ? 'nothing was measured' : 'waits for the lab')}</td
								>{/if}
							<td
								>{#if one.load}<a href="/loads/{one.load}#held">Evidence</a>{/if}</td
							>
						</tr>
					{/each}
				</tbody>
			</table>
		</Scroller>
	{:else}<p class="muted">
			No interaction was simulated in these loads. Whether a variant waits for interaction is seen when the lab
			simulates one.
		</p>{/if}
	<div class="buttons no-print">
		{#each compared as arm (arm.id)}<form method="POST" action="?/nudge" use:enhance>
				<input type="hidden" name="arm" value={arm.id} /><button
					>Nudge “{arm.page ? `${arm.page}, ` : ''}{arm.name}”</button
				>
			</form>{/each}
	</div>
</section>

<style>
	.buttons {
		display: flex;
		flex-wrap: wrap;
		gap: 0.5rem;
		margin-top: 0.6rem;
	}
</style>
