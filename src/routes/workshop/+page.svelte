<script lang="ts">
	import { Button } from 'carbon-components-svelte';
	import Scroller from '$lib/parts/Scroller.svelte';
	import { formatIn } from '../../core/wording/format';

	let { data } = $props();
</script>

<svelte:head><title>Workshop – Zafra</title></svelte:head>

<div class="page">
	<div class="top">
		<h1>Workshop</h1>
		<Button href="/workshop/conditions/new" data-key="r">New conditions</Button>
	</div>
	<section>
		<h2>Conditions</h2>
		<p class="muted">How pages are loaded. A trial keeps a frozen copy of its own, so that a change here never touches what was measured.</p>
		<Scroller label="Table of conditions">
			<table class="ledger">
				<thead><tr><th scope="col">Name</th><th scope="col">What they are</th><th scope="col">Key</th><th scope="col"></th></tr></thead>
				<tbody>
					{#each data.conditions as one (one.id)}
						<tr>
							<td><a href="/workshop/conditions/{one.id}" data-row-link>{one.name}</a></td>
							<td>{one.summary}{one.summary ? '. ' : ''}<span class="muted figures">{one.detail}</span></td>
							<td>{one.id}{one.builtIn ? (one.changed ? ', ships with Zafra, changed' : ', ships with Zafra') : ''}</td>
							<td><a href="/workshop/conditions/new?from={one.id}">Copy<span class="visually-hidden"> {one.name}</span></a></td>
						</tr>
					{/each}
				</tbody>
			</table>
		</Scroller>
	</section>
	<section>
		<h2>Hosts sent elsewhere</h2>
		{#if data.hostMap.length}
			<table class="ledger short"><thead><tr><th scope="col">Host</th><th scope="col">Goes to</th></tr></thead><tbody>{#each data.hostMap as rule (rule.pattern)}<tr><td>{rule.pattern}</td><td class="figures">{rule.to}</td></tr>{/each}</tbody></table>
		{:else}<p class="muted">None. ZAFRA_HOST_MAP sends hosts elsewhere, for a new server before its name is switched.</p>{/if}
	</section>
	<section>
		<h2>Score recipe {data.recipe.version} and margins</h2>
		<Scroller label="Table of anchors and margins">
			<table class="ledger">
				<thead><tr><th scope="col">Metric</th><th scope="col" class="number">Weight</th><th scope="col" class="number">Good up to</th><th scope="col" class="number">Poor above</th><th scope="col" class="number">Margin, the larger of</th></tr></thead>
				<tbody>
					{#each data.metrics as one (one.id)}
						<tr>
							<td>{one.name}</td><td class="number">{data.recipe.weights[one.id] ?? ''}</td>
							<td class="number">{one.thresholds ? formatIn(one.unit, one.thresholds.good) : ''}</td><td class="number">{one.thresholds ? formatIn(one.unit, one.thresholds.poor) : ''}</td>
							<td class="number">{formatIn(one.unit, one.margin.absolute)}{one.margin.relative ? ` and ${one.margin.relative * 100} %` : ''}</td>
						</tr>
					{/each}
				</tbody>
			</table>
		</Scroller>
	</section>
</div>

<style>
	.page {
		max-width: 1040px;
	}
	.top {
		display: flex;
		justify-content: space-between;
		align-items: center;
		margin-bottom: 1rem;
	}
	section {
		margin-bottom: 1.8rem;
	}
	.short {
		max-width: 34rem;
	}
</style>
