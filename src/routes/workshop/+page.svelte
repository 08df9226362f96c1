<script lang="ts">
	import { Button } from 'carbon-components-svelte';
	import { enhance } from '$app/forms';
	import Scroller from '$lib/parts/Scroller.svelte';
	import { formatIn } from '$core/wording/format';

	let { data, form } = $props();
</script>

<svelte:head><title>Workshop – Zafra</title></svelte:head>

<div class="page">
	<div class="top">
		<h1>Workshop</h1>
		<Button href="/workshop/conditions/new" data-key="r">New conditions</Button>
	</div>
	<section>
		<h2>Conditions</h2>
		<p class="muted">
			How pages are loaded. A trial keeps a frozen copy of its own, so that a change here never touches what was
			measured.
		</p>
		<Scroller label="Table of conditions">
			<table class="ledger">
				<thead
					><tr
						><th scope="col">Name</th><th scope="col">What they are</th><th scope="col">Key</th><th scope="col"
						></th></tr
					></thead
				>
				<tbody>
					{#each data.conditions as one (one.id)}
						<tr>
							<td><a href="/workshop/conditions/{one.id}" data-row-link>{one.name}</a></td>
							<td>{one.summary}{one.summary ? '. ' : ''}<span class="muted figures">{one.detail}</span></td>
							<td
								>{one.id}{one.builtIn
									? one.changed
										? ', ships with Zafra, changed'
										: ', ships with Zafra'
									: ''}</td
							>
							<td
								><a href="/workshop/conditions/new?from={one.id}"
									>Copy<span class="visually-hidden"> {one.name}</span></a
								></td
							>
						</tr>
					{/each}
				</tbody>
			</table>
		</Scroller>
	</section>
	<section>
		<h2>Hosts sent elsewhere</h2>
		{#if data.hostMap.length}
			<table class="ledger short">
				<thead><tr><th scope="col">Host</th><th scope="col">Goes to</th></tr></thead><tbody
					>{#each data.hostMap as rule (rule.pattern)}<tr
							><td>{rule.pattern}</td><td class="figures">{rule.to}</td></tr
						>{/each}</tbody
				>
			</table>
		{:else}<p class="muted">
				None. ZAFRA_HOST_MAP sends hosts elsewhere, for a new server before its name is switched.
			</p>{/if}
	</section>
	<section>
		<h2>Sites and their CDN hosts</h2>
		<p class="muted">
			Hosts of another domain that serve a site’s own files: they count as the site’s, not as a third party.
		</p>
		{#if data.sites.length}
			<Scroller label="Table of sites">
				<table class="ledger">
					<thead
						><tr><th scope="col">Site</th><th scope="col">Client</th><th scope="col">CDN hosts</th></tr></thead
					>
					<tbody>
						{#each data.sites as site (site.id)}
							<tr>
								<td>{site.name}<br /><span class="muted">{site.host}</span></td><td>{site.client}</td>
								<td>
									<form
										method="POST"
										action="?/cdn"
										use:enhance={() =>
											({ update }) =>
												update({ reset: false })}
									>
										<input type="hidden" name="site" value={site.id} />
										<label
											><span class="visually-hidden">CDN hosts of {site.host}</span><input
												name="hosts"
												value={form?.site === site.id ? form.typed : site.cdnHosts}
												placeholder="none"
											/></label
										>
										<button>Keep<span class="visually-hidden"> for {site.host}</span></button>
										{#if form?.site === site.id && form.problem}<div class="problem" role="alert">
												{form.problem}
											</div>{/if}
									</form>
								</td>
							</tr>
						{/each}
					</tbody>
				</table>
			</Scroller>
		{:else}<p class="muted">No sites yet.</p>{/if}
	</section>
	<section>
		<h2>Score recipe {data.recipe.version} and margins</h2>
		<Scroller label="Table of anchors and margins">
			<table class="ledger">
				<thead
					><tr
						><th scope="col">Metric</th><th scope="col" class="number">Weight</th><th scope="col" class="number"
							>Good up to</th
						><th scope="col" class="number">Poor above</th><th scope="col" class="number"
							>Margin, the larger of</th
						></tr
					></thead
				>
				<tbody>
					{#each data.metrics as one (one.id)}
						<tr>
							<td>{one.name}</td><td class="number">{data.recipe.weights[one.id] ?? ''}</td>
							<td class="number">{one.thresholds ? formatIn(one.unit, one.thresholds.good) : ''}</td><td
								class="number">{one.thresholds ? formatIn(one.unit, one.thresholds.poor) : ''}</td
							>
							<td class="number"
								>{formatIn(one.unit, one.margin.absolute)}{one.margin.relative
									? ` and ${one.margin.relative * 100} %`
									: ''}</td
							>
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
	td input {
		background: var(--panel);
		color: var(--ink);
		border: 1px solid var(--rule);
		padding: 0.2rem 0.4rem;
		width: 16rem;
		max-width: 100%;
	}
	.problem {
		color: var(--worse);
		font-size: 0.88rem;
	}
	.short {
		max-width: 34rem;
	}
</style>
