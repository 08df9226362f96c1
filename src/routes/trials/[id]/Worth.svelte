<script lang="ts">
	/** Gain against price. */
	import { formatDifference } from '$core/wording/format';
	import type { SheetView } from '$lib/server/trials/sheetView';
	import Scroller from '$lib/parts/Scroller.svelte';

	interface Props {
		data: SheetView;
	}
	let { data }: Props = $props();
	const conditionName = (id: string) => data.conditions.find((one) => one.id === id)?.name ?? id;
	const pairOf = (arm: number) => data.comparisons.find((one) => one.id === arm)!;
</script>

<section id="worth" class="no-print" aria-labelledby="worth-title">
	<h2 id="worth-title">Worth it?</h2>
	<Scroller label="Gain against price">
		<table class="ledger">
			<thead
				><tr
					><th scope="col">Arm</th><th scope="col">Conditions</th><th scope="col" class="number">Score</th><th
						scope="col"
						class="number">LCP</th
					><th scope="col" class="number">A month</th><th scope="col" class="number">Hours</th><th scope="col"
						>In words</th
					></tr
				></thead
			>
			<tbody>
				{#each data.worth as one (one.condition + one.arm)}
					<tr>
						<td>{pairOf(one.arm).name}</td><td>{conditionName(one.condition)}</td>
						<td class="number">{one.points === null ? '–' : formatDifference('score', one.points)}</td>
						<td class="number">{one.lcpMs === null ? '–' : formatDifference('lcp', -one.lcpMs)}</td>
						<td class="number">{one.monthlyCost ?? 'unknown'}</td><td class="number"
							>{one.hours ?? 'unknown'}</td
						>
						<td>{one.words}</td>
					</tr>
				{/each}
			</tbody>
		</table>
	</Scroller>
</section>
