<script lang="ts">
	/** A journey after the load: each step with its own time, requests, shifts and INP. */
	import Scroller from '$lib/parts/Scroller.svelte';
	import type { StepRecord } from '$core/load/record';
	import { formatBytes, formatDuration, formatValue } from '$core/wording/format';

	let { steps, picture }: { steps: StepRecord[]; picture: string } = $props();
	const failed = $derived(steps.find((step) => step.status === 'failed'));
</script>

<p>{failed ? failed.message : `All ${steps.length} steps went as expected.`}</p>
<Scroller label="Table of steps">
	<table class="ledger">
		<thead
			><tr
				><th scope="col">Step</th><th scope="col">State</th><th scope="col" class="number">At</th><th
					scope="col"
					class="number">Done after</th
				><th scope="col" class="number">Quiet after</th><th scope="col" class="number">Requests</th><th
					scope="col"
					class="number">Wire</th
				><th scope="col" class="number">CLS</th><th scope="col" class="number">INP</th><th scope="col"
					>Document</th
				></tr
			></thead
		>
		<tbody>
			{#each steps as step (step.number)}
				<tr class:bad={step.status === 'failed'} class:muted={step.status === 'skipped'}>
					<td>{step.number}. {step.words}</td>
					<td>{step.status === 'ok' ? 'went well' : step.status}</td>
					<td class="number">{formatDuration(step.atMs)}</td>
					<td class="number">{step.durationMs === null ? '–' : formatDuration(step.durationMs)}</td>
					<td class="number">{step.quietMs === null ? '–' : formatDuration(step.quietMs)}</td>
					<td class="number">{step.requests}</td>
					<td class="number">{formatBytes(step.wireBytes)}</td>
					<td class="number">{formatValue('cls', step.cls)}</td>
					<td class="number">{step.inp === null ? '–' : formatDuration(step.inp)}</td>
					<td>{step.navigated ? 'a new one' : 'the same'}</td>
				</tr>
			{/each}
		</tbody>
	</table>
</Scroller>
{#if failed}<figure>
		<img src={picture} alt="The page when step {failed.number} failed" />
		<figcaption>The page when step {failed.number} failed.</figcaption>
	</figure>{/if}

<style>
	.bad td {
		color: var(--worse);
	}
	figure {
		margin: 0.8rem 0 0;
	}
	img {
		max-width: min(100%, 360px);
		border: 1px solid var(--rule);
	}
	figcaption {
		font-size: 0.88rem;
		color: var(--muted);
	}
</style>
