<script lang="ts">
	/** What was equal, different or unknown between an arm and the baseline. */
	import { enhance } from '$app/forms';
	import Scroller from '$lib/parts/Scroller.svelte';
	import type { FairnessText } from '$core/wording/fairness';

	interface Props {
		lines: FairnessText[];
		intended: string[];
		baseline: string;
		arm: string;
	}
	let { lines, intended, baseline, arm }: Props = $props();
	let all = $state(false);
	const WORDS = { equal: 'equal', differs: 'differs', unknown: 'unknown' };
	const count = (state: FairnessText['state']) => lines.filter((line) => line.state === state).length;
	const shown = $derived(all ? lines : lines.filter((line) => line.state !== 'equal'));
</script>

<p>{count('equal')} equal, {count('differs')} different, {count('unknown')} unknown.</p>
<Scroller label="Fairness of {arm} against {baseline}">
	<table class="ledger">
		<thead
			><tr
				><th scope="col">What</th><th scope="col">State</th><th scope="col">{baseline}</th><th scope="col"
					>{arm}</th
				><th scope="col">What it means for the answer</th></tr
			></thead
		>
		<tbody>
			{#each shown as line (line.id)}
				<tr>
					<th scope="row">{line.name}</th>
					<td class={line.state}>
						{WORDS[line.state]}
						{#if line.state === 'differs'}
							<form method="POST" action="?/intend" use:enhance class="no-print">
								<input type="hidden" name="line" value={line.id} />
								<button aria-pressed={intended.includes(line.id)}
									>{intended.includes(line.id) ? 'intended ✓' : 'mark as intended'}</button
								>
							</form>
						{/if}
					</td>
					<td class="value">{line.values[0]}</td>
					<td class="value">{line.values[1]}</td>
					<td class="muted">{line.meaning}</td>
				</tr>
			{/each}
		</tbody>
	</table>
</Scroller>
<p class="no-print">
	<button onclick={() => (all = !all)}
		>{all ? 'Fold what is equal' : `Show the ${count('equal')} equal ones too`}</button
	>
</p>

<style>
	th[scope='row'] {
		font-weight: 600;
		min-width: 8rem;
	}
	.differs {
		font-weight: 600;
	}
	.unknown,
	.equal {
		color: var(--muted);
	}
	.value {
		overflow-wrap: anywhere;
		max-width: 15rem;
	}
	table {
		font-size: 0.88rem;
	}
	button {
		background: none;
		border: 1px solid var(--rule);
		color: var(--action);
		padding: 0.1rem 0.5rem;
		cursor: pointer;
		font-size: 0.82rem;
		white-space: nowrap;
	}
</style>
