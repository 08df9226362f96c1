<script lang="ts">
	import { Button, Pagination, TextInput } from 'carbon-components-svelte';
	import { enhance } from '$app/forms';
	import { goto, invalidateAll } from '$app/navigation';
	import Scroller from '$lib/parts/Scroller.svelte';
	import { live } from '$lib/live.svelte';
	import { metricOf } from '$core/metrics/catalogue';
	import { formatMoment, formatValue } from '$core/wording/format';

	let { data, form } = $props();
	const typed = $derived(form && 'values' in form ? form.values : null);
	const issue = (path: string) =>
		form?.issues?.find((one) => one.path === path || one.path.startsWith(`${path}.`))?.message ?? '';
	const COLUMNS = ['score', 'lcp', 'cls', 'tbt', 'wire', 'requests'] as const;
	const EXAMPLE = '[{"click": "#menu"}, {"expect": {"text": "Timetable"}}]';
	let sure: number | null = $state(null);

	// A load that ends shows up by itself.
	let known: string | undefined;
	$effect(() => {
		const mark = JSON.stringify(live.snapshot?.singles);
		if (known !== undefined && known !== mark) void invalidateAll();
		known = mark;
	});
	const conditionName = (id: string) =>
		data.conditions.find((one) => one.id === id)?.name ?? (id === 'unknown' ? 'Unknown' : id);
</script>

<svelte:head><title>Loads – Zafra</title></svelte:head>

<div class="page">
	<h1>Loads</h1>
	<p class="muted">
		One load shows why; it never proves a difference. To compare, make a <a href="/trials/new">trial</a>.
	</p>
	{#if issue('')}<p class="problem" role="alert">{issue('')}</p>{/if}
	<div class="forms">
		<form
			method="POST"
			action="?/load"
			class="panel"
			novalidate
			use:enhance={() =>
				({ update }) =>
					update({ reset: false })}
		>
			<h2>Load a page</h2>
			<input type="hidden" name="clientId" value={data.clientId ?? ''} />
			<TextInput
				name="url"
				labelText="Address"
				placeholder="https://"
				value={typed?.url ?? ''}
				invalid={issue('url') !== ''}
				invalidText={issue('url')}
			/>
			<div class="row">
				<label
					>Conditions <select name="conditions" value={typed?.conditions ?? data.conditions[0]?.id}
						>{#each data.conditions as one (one.id)}<option value={one.id}>{one.name}</option>{/each}</select
					></label
				>
				<label class="check"
					><input type="checkbox" name="nudge" checked={typed?.nudge ?? false} /> Nudge it once it has settled</label
				>
				<label class="check"
					><input type="checkbox" name="repeat" checked={typed?.repeat ?? false} /> Measure the repeat visit</label
				>
			</div>
			<details open={Boolean(typed?.steps) || issue('steps') !== ''}>
				<summary>Steps of a journey</summary>
				<label class="steps"
					>A JSON list: open, click, type, scroll, wait, expect, mark
					<textarea
						name="steps"
						rows="4"
						placeholder={EXAMPLE}
						spellcheck="false"
						aria-invalid={issue('steps') !== ''}>{typed?.steps ?? ''}</textarea
					>
				</label>
			</details>
			{#if issue('steps')}<p class="problem" role="alert">{issue('steps')}</p>{/if}
			<Button type="submit" data-key="r">Load the page</Button>
		</form>
		<form method="POST" action="?/har" enctype="multipart/form-data" class="panel">
			<h2>Read a HAR file</h2>
			<p class="small muted">A load measured elsewhere. What the file does not hold is shown as unknown.</p>
			<input type="hidden" name="clientId" value={data.clientId ?? ''} />
			<label>HAR file <input type="file" name="file" accept=".har,application/json" /></label>
			{#if issue('file')}<p class="problem" role="alert">{issue('file')}</p>{/if}
			<Button type="submit" kind="tertiary">Read the file</Button>
		</form>
	</div>

	{#if data.waiting.length}
		<h2>Under way</h2>
		<ul class="waiting">
			{#each data.waiting as one (one.id)}
				<li>
					<span
						>{one.url}, {one.conditions}{one.nudged ? ', nudged' : ''}: {one.status === 'leased'
							? 'loading now'
							: 'waits for the lab'}</span
					>
					{#if one.status === 'queued'}<form method="POST" action="?/drop" use:enhance>
							<input type="hidden" name="id" value={one.id} /><button class="plain">Take back</button>
						</form>{/if}
				</li>
			{/each}
		</ul>
	{/if}

	<h2>Single loads</h2>
	{#if data.loads.length}
		<Scroller label="Table of single loads">
			<table class="ledger">
				<thead
					><tr
						><th scope="col">Page</th><th scope="col">Conditions</th><th scope="col">When</th
						>{#each COLUMNS as id (id)}<th scope="col" class="number">{metricOf(id).short}</th>{/each}<th
							scope="col">Note</th
						><th scope="col"><span class="visually-hidden">Delete</span></th></tr
					></thead
				>
				<tbody>
					{#each data.loads as one (one.id)}
						<tr>
							<td class="address"><a href="/loads/{one.id}" data-row-link>{one.url}</a></td>
							<td>{conditionName(one.conditionId)}</td>
							<td class="when">{formatMoment(one.startedAt)}</td>
							{#each COLUMNS as id (id)}<td class="number">{formatValue(id, one.figures[id])}</td>{/each}
							<td
								>{one.status === 'failed'
									? `Failed: ${one.reason}`
									: one.source === 'har'
										? 'from a HAR'
										: one.failedStep
											? `step ${one.failedStep} failed`
											: one.nudged
												? 'nudged'
												: ''}</td
							>
							<td>
								<form method="POST" action="?/delete" use:enhance>
									<input type="hidden" name="id" value={one.id} />
									{#if sure === one.id}<button class="plain danger">Delete the load and its pictures</button
										>{:else}<button type="button" class="plain" onclick={() => (sure = one.id)}
											>Delete…<span class="visually-hidden"> load {one.id}</span></button
										>{/if}
								</form>
							</td>
						</tr>
					{/each}
				</tbody>
			</table>
		</Scroller>
		{#if data.pages > 1}
			<Pagination
				totalItems={data.total}
				page={data.page}
				pageSize={25}
				pageSizeInputDisabled
				on:change={(event) => event.detail.page && goto(`?page=${event.detail.page}`)}
			/>
		{/if}
	{:else}<p class="muted">
			No single load yet. Name an address above and press “Load the page”: about ten seconds later its sheet is
			here.
		</p>{/if}
</div>

<style>
	.page {
		max-width: 1160px;
	}
	.forms {
		display: grid;
		grid-template-columns: minmax(0, 2fr) minmax(0, 1fr);
		gap: 1rem;
		margin: 1rem 0 1.6rem;
	}
	.row {
		display: flex;
		flex-wrap: wrap;
		gap: 0.6rem 1.3rem;
		align-items: center;
		margin: 0.7rem 0;
	}
	label {
		font-size: 0.9rem;
	}
	.check {
		display: flex;
		gap: 0.4rem;
		align-items: center;
	}
	textarea {
		width: 100%;
		font-family: ui-monospace, monospace;
		font-size: 0.86rem;
	}
	.steps {
		display: block;
		margin-top: 0.4rem;
		color: var(--muted);
	}
	details {
		margin-bottom: 0.8rem;
	}
	summary {
		cursor: pointer;
		color: var(--action);
		font-size: 0.9rem;
	}
	.small {
		font-size: 0.88rem;
	}
	.panel :global(.bx--btn) {
		margin-top: 0.6rem;
	}
	.problem {
		color: var(--worse);
		border-left: 3px solid var(--worse);
		padding-left: 0.6rem;
		margin: 0.4rem 0;
	}
	.waiting {
		margin: 0 0 1.4rem;
	}
	.waiting li {
		display: flex;
		gap: 1rem;
		overflow-wrap: anywhere;
	}
	.address {
		overflow-wrap: anywhere;
		min-width: 14rem;
	}
	.when {
		white-space: nowrap;
	}
	.plain {
		background: none;
		border: 0;
		color: var(--action);
		text-decoration: underline;
		cursor: pointer;
		padding: 0;
	}
	.danger {
		color: var(--worse);
	}
	@media (max-width: 760px) {
		.forms {
			grid-template-columns: minmax(0, 1fr);
		}
	}
</style>
