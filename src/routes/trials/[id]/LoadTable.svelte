<script lang="ts">
	/** Every load of the trial, filtered; a load that does not belong can be excluded, with a reason. */
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { metricOf, type MetricId } from '$core/metrics/catalogue';
	import { formatMoment, formatValue } from '$core/wording/format';
	import { queryWith } from '$lib/fragmentText';
	import Action from '$lib/parts/Action.svelte';
	import Choice from '$lib/parts/Choice.svelte';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';
	import type { PartProps } from './partProps';
	import Exclude from './Exclude.svelte';

	let { data }: PartProps<'loads'> = $props();
	type Row = (typeof data.loads)[number];
	let condition = $state('');
	let arm = $state(0);
	/** The load that the address names has a form to say why. */
	const excluding = $derived(Number(page.url.searchParams.get('exclude')));
	const addressOf = (load: string) => queryWith(page.url.search, { exclude: load }) || page.url.pathname;
	const done = () => void goto(addressOf(''), { replaceState: true, noScroll: true, keepFocus: true });
	const PAGE = 25;
	const fitting = $derived(
		data.loads.filter((load) => (!condition || load.conditionId === condition) && (!arm || load.armId === arm))
	);
	const nameOf = (id: number) => {
		const found = data.arms.find((other) => other.id === id);
		return found ? `${found.page ? `${found.page}, ` : ''}${found.name}` : '';
	};
	const conditionName = (id: string) => data.conditions.find((conditions) => conditions.id === id)?.name ?? id;
	const isOutlying = (metric: MetricId, load: Row) => data.outlying[metric]?.includes(load.id) ?? false;
	const noteOf = (load: Row) =>
		[
			load.status === 'failed' && `failed: ${load.reason}`,
			load.excluded && `excluded: ${load.excluded}`,
			load.warmup && 'not counted',
			load.disturbed && (load.counts ? 'machine busy' : 'machine busy, not counted'),
			load.capped && 'ended at the time cap',
			load.failedStep && `step ${load.failedStep} failed`,
			load.speedOff && 'machine speed differs'
		]
			.filter(Boolean)
			.join('; ');
	const columns: Column<Row>[] = $derived([
		{ key: 'evidence', name: 'Load' },
		{ key: 'conditions', name: 'Conditions', text: (load) => conditionName(load.conditionId) },
		{
			key: 'round',
			name: 'Round',
			text: (load) => (load.warmup ? `warm-up ${load.round}` : load.round),
			sort: (load) => (load.warmup ? load.round - 1000 : load.round)
		},
		{ key: 'arm', name: 'Variant', text: (load) => nameOf(load.armId), sort: (load) => nameOf(load.armId) },
		...data.trial.primary.map((metric) => ({
			key: metric,
			name: metricOf(metric).short,
			number: true,
			text: (load: Row) =>
				formatValue(metric, load.figures[metric] ?? null) + (isOutlying(metric, load) ? '°' : ''),
			sort: (load: Row) => load.figures[metric] ?? null
		})),
		{ key: 'note', name: 'Note', kind: 'note', text: noteOf },
		{ key: 'exclude', name: 'Exclude', isUnnamed: true }
	]);
	const all = <Value,>(value: Value, text: string) => ({ value, text });
</script>

{#if data.loads.length}
	<div class="row filters no-print">
		<Choice
			label="Conditions"
			inline
			options={[all('', 'All'), ...data.conditions.map(({ id, name }) => all(id, name))]}
			bind:value={condition}
		/>
		<Choice
			label="Variant"
			inline
			options={[all(0, 'All'), ...data.arms.map(({ id }) => all(id, nameOf(id)))]}
			bind:value={arm}
		/>
		<span class="muted figures">{fitting.length} of {data.loads.length}</span>
		<a href="/api/trials/{data.trial.id}/loads.csv" download>Download as CSV</a>
	</div>
	{#key `${condition} ${arm}`}
		<Table
			label="Table of loads"
			{columns}
			rows={fitting}
			key={(load) => load.id}
			pageSize={PAGE}
			size="compact"
			rowClass={(load) => (!load.counts || load.excluded !== null ? 'aside' : '')}
		>
			{#snippet cell(load, column)}
				{#if column.key === 'evidence'}
					<a href="/loads/{load.id}" data-row-link title={formatMoment(load.startedAt)}
						>Evidence <span class="visually-hidden">of load {load.id}</span></a
					>
				{:else if load.excluded !== null}<Action
						action="?/restore"
						text="Include again"
						about="load {load.id}"
						values={{ load: load.id }}
					/>
				{:else if excluding === load.id}<Exclude load={load.id} {done} />
				{:else if !load.warmup}<a
						href={addressOf(String(load.id))}
						data-sveltekit-noscroll
						data-sveltekit-replacestate>Exclude… <span class="visually-hidden">load {load.id}</span></a
					>{/if}
			{/snippet}
		</Table>
	{/key}
	{#if fitting.some((load) => data.trial.primary.some((metric) => isOutlying(metric, load)))}<p
			class="muted small"
		>
			° far from the other loads of its variant; still counted.
		</p>{/if}
{:else}
	<p class="muted">No load has ended yet.</p>
{/if}

<style>
	.filters {
		margin-bottom: var(--gap-4);
	}
</style>
