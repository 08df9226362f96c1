<script lang="ts">
	/** What to do, dearest first: one line a cause, with its pages, its cost, its proof and when it is done. */
	import { Button, Tag } from 'carbon-components-svelte';
	import { metricOf } from '$core/metrics/catalogue';
	import { formatBytes } from '$core/wording/format';
	import type { AuditView } from '$lib/server/rooms/audits/view';

	interface Props {
		causes: AuditView['causes'];
		/** How the pages come within their targets, in sentences. */
		way: readonly string[];
		clientId: number | null;
	}
	let { causes, way, clientId }: Props = $props();
	/** More come at a press. */
	const FIRST = 10;
	let isAll = $state(false);
	let open = $state('');
	const shown = $derived(isAll ? causes : causes.slice(0, FIRST));
	const keyOf = ({ rule, resource }: AuditView['causes'][number]) => `${rule}/${resource.key}`;
</script>

<section>
	<div class="head">
		<h2>What to do</h2>
		{#if clientId !== null && causes.length}<a href="/worklist">The worklist</a>{/if}
	</div>
	{#if !causes.length}<p>The rules found nothing in most loads of any page.</p>{/if}
	{#each way as sentence (sentence)}<p>{sentence}</p>{/each}
	<ol>
		{#each shown as cause (keyOf(cause))}
			<li>
				<div class="what">
					<b>{cause.title}</b>
					{#if cause.hurts}<Tag size="sm" type="magenta">{metricOf(cause.hurts).short} misses its target</Tag
						>{/if}
					<span class="muted small">{cause.reach}</span>
				</div>
				<span class="figures cost"
					>{cause.cost}{cause.saving ? ` · saves ${formatBytes(cause.saving.bytes)}` : ''}</span
				>
				<span class="muted small">{cause.who}, {cause.effort}</span>
				<Button
					kind="ghost"
					size="small"
					aria-expanded={open === keyOf(cause)}
					on:click={() => (open = open === keyOf(cause) ? '' : keyOf(cause))}
					>{open === keyOf(cause) ? 'Close' : 'How'}<span class="visually-hidden">: {cause.title}</span></Button
				>
				{#if open === keyOf(cause)}
					<div class="more">
						<p>{cause.detail}</p>
						<p class="resource"><code>{cause.resource.name}</code></p>
						<ol>
							{#each cause.advice as step (step)}<li>{step}</li>{/each}
						</ol>
						<p class="muted small">
							{cause.doneWhen}
							{cause.source ? `Rests on: ${cause.source}.` : 'Common practice.'}
							<a href="/loads/{cause.load}">A load that shows it</a>
						</p>
						{#if cause.rank}<p class="muted small">{cause.rank}</p>{/if}
						<p class="muted small">{[cause.types, cause.urls.join(', ')].filter(Boolean).join(': ')}</p>
					</div>
				{/if}
			</li>
		{/each}
	</ol>
	{#if causes.length > FIRST}<Button kind="ghost" size="small" on:click={() => (isAll = !isAll)}
			>{isAll ? 'The first ones' : `All ${causes.length}`}</Button
		>{/if}
</section>

<style>
	.head {
		display: flex;
		gap: var(--gap-5);
		align-items: baseline;
	}
	section {
		margin-top: var(--gap-6);
	}
	section > ol {
		list-style: none;
		margin: 0;
		padding: 0;
	}
	section > ol > li {
		display: grid;
		grid-template-columns: minmax(0, 1fr) minmax(7rem, 13rem) 9rem auto;
		gap: var(--gap-4);
		align-items: center;
		border-top: 1px solid var(--rule);
		padding: var(--gap-2) 0;
	}
	.what > * {
		margin-right: var(--gap-3);
	}
	.what b {
		font-weight: 600;
		overflow-wrap: anywhere;
	}
	.cost {
		font-size: var(--type-3);
	}
	.more {
		grid-column: 1 / -1;
		padding: 0 0 var(--gap-4) var(--gap-5);
	}
	.more p {
		margin: 0 0 var(--gap-3);
	}
	.resource {
		overflow-wrap: anywhere;
	}
	.more ol {
		margin: 0 0 var(--gap-3);
		padding-left: var(--gap-6);
		list-style: decimal;
	}
	@media (max-width: 720px) {
		section > ol > li {
			grid-template-columns: minmax(0, 1fr) auto;
		}
		.what {
			grid-column: 1 / -1;
		}
	}
</style>
