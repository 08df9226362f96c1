<script lang="ts">
	/** Gain against price. */
	import { formatDifference } from '$core/wording/format';
	import { wordMoney } from '$core/wording/money';
	import type { PartProps } from './partProps';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';

	let { data }: PartProps<'worth'> = $props();
	type Row = (typeof data.worth)[number];
	const conditionName = (id: string) => data.conditions.find((conditions) => conditions.id === id)?.name ?? id;
	const columns: Column<Row>[] = [
		{
			key: 'arm',
			name: 'Variant',
			text: (row) => data.comparisons.find(({ id }) => id === row.arm)?.name ?? ''
		},
		{ key: 'conditions', name: 'Conditions', text: (row) => conditionName(row.condition) },
		{
			key: 'points',
			name: 'Score',
			number: true,
			text: (row) => (row.points === null ? '–' : formatDifference('score', row.points)),
			sort: (row) => row.points
		},
		{
			key: 'lcp',
			name: 'LCP',
			number: true,
			text: (row) => (row.lcpMs === null ? '–' : formatDifference('lcp', -row.lcpMs)),
			sort: (row) => row.lcpMs
		},
		{
			key: 'cost',
			name: 'A month',
			number: true,
			text: (row) => (row.monthlyCost === null ? 'unknown' : wordMoney(row.monthlyCost, data.currency)),
			sort: (row) => row.monthlyCost
		},
		{
			key: 'hours',
			name: 'Hours',
			number: true,
			text: (row) => row.hours ?? 'unknown',
			sort: (row) => row.hours
		},
		{ key: 'words', name: 'In words', text: (row) => row.words }
	];
</script>

<Table label="Gain against price" {columns} rows={data.worth} key={(row) => `${row.condition} ${row.arm}`} />
