<script lang="ts">
	import { Button, InlineLoading } from 'carbon-components-svelte';
	import { invalidateAll } from '$app/navigation';
	import { formatMoment, formatValue } from '$core/wording/format';
	import { keepTyped } from '$lib/keepTyped';
	import Action from '$lib/parts/Action.svelte';
	import Choice from '$lib/parts/Choice.svelte';
	import Field from '$lib/parts/Field.svelte';
	import Hidden from '$lib/parts/Hidden.svelte';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';

	let { data } = $props();
	type Row = (typeof data.lines)[number];
	let which = $state('');
	const WHICH = [
		{ value: '', text: 'All' },
		{ value: 'ask', text: 'To ask about' },
		{ value: 'kept', text: 'Confirmed' }
	];
	const rows = $derived(
		data.lines.filter(({ reasons }) => which === '' || (which === 'ask') === reasons.length > 0)
	);
	const askedByWords = ({ askedBy }: Row) =>
		askedBy
			.map((who) => (who === 'page' ? 'the page' : who === 'site' ? 'a script of the site' : who))
			.join(', ');
	const columns: Column<Row>[] = [
		{ key: 'host', name: 'Host', sort: ({ host }) => host },
		{ key: 'asked', name: 'Asked for by', text: askedByWords },
		{ key: 'pages', name: 'Pages', number: true, text: ({ pages }) => pages, sort: ({ pages }) => pages },
		{ key: 'device', name: 'Device' },
		{ key: 'requests', name: 'Requests', number: true, sort: ({ requests }) => requests },
		{ key: 'wire', name: 'Bytes', number: true, sort: ({ wireBytes }) => wireBytes },
		{ key: 'blocking', name: 'Blocking', number: true, sort: ({ blockingMs }) => blockingMs },
		{ key: 'tail', name: 'Tail', number: true, sort: ({ tailMs }) => tailMs },
		{ key: 'note', name: 'Owner and purpose' }
	];
	type Costs = Row['devices'][number];
	const COSTS: Record<string, (costs: Costs) => string> = {
		device: ({ device }) => device,
		requests: ({ requests }) => String(Math.round(requests)),
		wire: ({ wireBytes }) => formatValue('wire', wireBytes),
		blocking: ({ blockingMs }) => formatValue('tbt', blockingMs),
		tail: ({ tailMs }) => formatValue('full', tailMs)
	};
	let edited = $state<string | null>(null);
	const POLL_MS = 2000;
	$effect(() => {
		if (!data.unread) return;
		const timer = setInterval(() => void invalidateAll(), POLL_MS);
		return () => clearInterval(timer);
	});
</script>

<svelte:head><title>Third parties of {data.client.name} – Zafra</title></svelte:head>

<div class="page">
	<div class="page-top">
		<h1>Third parties of {data.client.name}</h1>
		{#if data.lines.length}<a href="/api/clients/{data.client.id}/third-parties.csv" download>CSV</a>{/if}
	</div>
	<p class="muted">
		All third-party hosts in this client’s loads. Figures are medians over the loads that asked them, by device;
		the tail is how much later the last response came because of a host.
	</p>
	{#if data.unread}<InlineLoading
			description="The lab reads {data.unread} {data.unread === 1 ? 'load' : 'loads'} between its own"
		/>{/if}
	{#if data.lines.length}
		<Choice label="Show" inline options={WHICH} bind:value={which} />
		<Table label="Third parties" {columns} {rows} key={({ host }) => host}>
			{#snippet cell(row, column)}
				{#if column.key === 'host'}
					<b class="host">{row.host}</b><br /><span class="muted small"
						>{row.loads} {row.loads === 1 ? 'load' : 'loads'}, last {formatMoment(row.lastSeenAt)}</span
					>
					{#if row.why}<br /><span class="trouble small">{row.why}</span>
					{:else if row.confirmedAt}<br /><span class="muted small"
							>confirmed {formatMoment(row.confirmedAt)}</span
						>{/if}
				{:else if COSTS[column.key]}
					{#each row.devices as costs (costs.device)}<div class="line">{COSTS[column.key]!(costs)}</div>{/each}
				{:else if edited !== row.host}
					<div class="row note">
						<span class="words">{[row.owner, row.purpose].filter(Boolean).join(': ') || '–'}</span>
						<Button kind="ghost" size="small" on:click={() => (edited = row.host)}
							>Edit <span class="visually-hidden">owner and purpose of {row.host}</span></Button
						>
						{#if row.reasons.length}<Action
								action="?/note"
								text="Confirm"
								about="that {row.host} is wanted"
								values={{ host: row.host, owner: row.owner, purpose: row.purpose, confirm: 'yes' }}
							/>{/if}
					</div>
				{:else}
					<form method="POST" action="?/note" use:keepTyped={{ done: () => (edited = null) }} class="row note">
						<Hidden name="host" value={row.host} />
						<Field
							label="Owner of {row.host}"
							hideLabel
							name="owner"
							size="sm"
							value={row.owner}
							placeholder="owner"
						/>
						<Field
							label="Purpose of {row.host}"
							hideLabel
							name="purpose"
							size="sm"
							value={row.purpose}
							placeholder="purpose"
						/>
						<Button type="submit" kind="ghost" size="small"
							>Save <span class="visually-hidden">{row.host}</span></Button
						>
					</form>
				{/if}
			{/snippet}
		</Table>
	{:else if !data.unread}<p class="muted">No load of this client has asked a third-party host.</p>{/if}
</div>

<style>
	.host {
		display: inline-block;
		min-width: 13rem;
	}
	.line {
		white-space: nowrap;
	}
	.words {
		flex: 1 1 100%;
	}
	.note {
		min-width: 9rem;
	}
	.note :global(.bx--form-item) {
		flex: 1 1 6rem;
	}
</style>
