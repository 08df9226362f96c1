<script lang="ts">
	/** Before a change is measured: is the site's cache full again, on each device? */
	import { Button } from 'carbon-components-svelte';
	import { formatMoment } from '$core/wording/format';
	import { keepTyped } from '$lib/keepTyped';
	import Choice from '$lib/parts/Choice.svelte';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';
	import type { SettlingView } from '$lib/server/rooms/pages/view';
	import { pathOf } from './pageWords';

	interface Props {
		settling: SettlingView | null;
		action: string;
		stopAction: string;
	}
	let { settling, action, stopAction }: Props = $props();
	let isShown = $state(false);
	let minutes = $state('10');
	const LIMITS = [5, 10, 30, 60].map((count) => ({ value: String(count), text: `for ${count} minutes` }));
	type Row = SettlingView['pages'][number];
	const columns: Column<Row>[] = $derived([
		{ key: 'page', name: 'Page', kind: 'address', text: ({ url }) => pathOf(url) },
		...(settling?.devices ?? []).map(({ id, name }) => ({
			key: id,
			name,
			text: ({ answers }: Row) => answers.find(({ condition }) => condition === id)?.words ?? ''
		}))
	]);
</script>

<section>
	<div class="head">
		<h2>Served from the site’s cache</h2>
		{#if settling?.isOpen}
			<form method="POST" action={stopAction} use:keepTyped>
				<Button type="submit" kind="ghost" size="small">Stop asking</Button>
			</form>
		{:else}
			<form method="POST" {action} use:keepTyped class="row">
				<Choice label="Ask until all are, at most" name="minutes" options={LIMITS} bind:value={minutes} />
				<Button type="submit" kind="tertiary" size="small"
					>{settling ? 'Ask again' : 'Ask the pages of the sample'}</Button
				>
			</form>
		{/if}
	</div>
	{#if settling}
		<ul class="plain figures" aria-live="polite">
			{#each settling.counts as { condition, words } (condition)}<li>{words}</li>{/each}
		</ul>
		<p class="muted small">
			{settling.isOpen
				? `Asked until all are, until ${formatMoment(settling.until)} at most. Asking fills a cache as a visit does.`
				: `Asked ${formatMoment(settling.at)}.`}
			<Button kind="ghost" size="small" aria-expanded={isShown} on:click={() => (isShown = !isShown)}
				>{isShown ? 'Hide the pages' : 'Show the pages'}</Button
			>
		</p>
		{#if isShown}<Table
				label="Pages and the site’s cache"
				{columns}
				rows={settling.pages}
				key={({ url }) => url}
			/>{/if}
	{:else}
		<p class="muted">
			After a purge or a change: wait until the pages come from the cache again, then measure.
		</p>
	{/if}
</section>

<style>
	.head,
	.row {
		display: flex;
		flex-wrap: wrap;
		gap: var(--gap-5);
		align-items: end;
	}
	.head {
		justify-content: space-between;
	}
</style>
