<script lang="ts">
	/** Variants with what they run on: the differences, clashes, features; editable. */
	import { hasPages } from '$core/trial/design/kinds';
	import { page } from '$app/state';
	import { wordMoney } from '$core/wording/money';
	import Lazy from '$lib/parts/Lazy.svelte';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';
	import { Button } from 'carbon-components-svelte';
	import { exclusiveClashes, monthlyCostOf, NO_SETUP, setupDifferences } from '$core/trial/design/setup';
	import type { PublicArm } from '$core/trial/design/publicArm';
	import type { TrialKind } from '$core/trial/types';

	interface Props {
		arms: PublicArm[];
		kind: TrialKind;
		colourOf: (arm: number) => string;
	}
	let { arms, kind, colourOf }: Props = $props();
	const baselineOf = (arm: PublicArm) =>
		arms.find((one) => one.baseline && (!hasPages(kind) || one.page === arm.page))!;
	const others = $derived(arms.filter((arm) => !arm.baseline && !arm.reference));
	const features = $derived([...new Set(arms.flatMap((arm) => Object.keys(arm.setup?.features ?? {})))].sort());
	const known = $derived(arms.some((arm) => arm.setup));
	let isEditing = $state(false);
	const componentsOf = (arm: PublicArm) =>
		arm.setup?.components
			.map(
				({ name, version, tier }) =>
					`${name}${version ? ` ${version}` : ''}${tier === 'unknown' ? '' : `, ${tier}`}`
			)
			.join('; ');
	const columns: Column<PublicArm>[] = $derived([
		{ key: 'name', name: 'Name' },
		...(hasPages(kind) ? [{ key: 'page', name: 'Page', text: (arm: PublicArm) => arm.page ?? '' }] : []),
		{ key: 'url', name: 'Address', kind: 'address' },
		{
			key: 'part',
			name: 'Part in the trial',
			text: (arm) =>
				arm.baseline
					? 'Baseline'
					: arm.reference
						? arm.page
							? 'Further page, loaded in every stage'
							: 'Reference page, loaded in every stage'
						: 'Compared with the baseline'
		},
		{ key: 'setup', name: 'Runs on' }
	]);
	const compared = $derived(arms.filter((arm) => !arm.reference));
	const statesOf = (feature: string) => compared.map((arm) => arm.setup?.features[feature]);
	const featureColumns: Column<string>[] = $derived([
		{
			key: 'feature',
			name: 'Feature',
			isRowHead: true,
			text: (feature) => (new Set(statesOf(feature)).size > 1 ? `${feature}, not level` : feature)
		},
		...compared.map((arm) => ({
			key: String(arm.id),
			name: arm.name,
			text: (feature: string) => {
				const state = arm.setup?.features[feature];
				return state === undefined ? 'unknown' : state ? 'on' : 'off';
			}
		}))
	]);
	const valueOf = (name: string, value: string) =>
		value === '' ? 'not set' : name === 'monthly cost' ? wordMoney(Number(value), page.data.currency) : value;
	const cost = (arm: PublicArm) => {
		const sum = arm.setup ? monthlyCostOf(arm.setup) : null;
		return sum === null ? '' : `${wordMoney(sum, page.data.currency)} a month`;
	};
</script>

<Table label="Table of variants" {columns} rows={arms} key={(arm) => arm.id}>
	{#snippet cell(arm, column)}
		{#if column.key === 'name'}<i class="swatch" style:background={colourOf(arm.id)}></i>{arm.name}
		{:else if column.key === 'url'}<a href={arm.url} rel="external noreferrer">{arm.url}</a>
		{:else}
			{componentsOf(arm) || '–'}
			{#if cost(arm)}<div class="muted">{cost(arm)}</div>{/if}
			{#each arm.setup ? exclusiveClashes(arm.setup) : [] as clash (clash)}<div class="clash">
					{clash}
				</div>{/each}
		{/if}
	{/snippet}
</Table>
{#if known}
	<div class="no-print">
		{#each others as arm (arm.id)}
			{@const differences = setupDifferences(baselineOf(arm).setup ?? NO_SETUP, arm.setup ?? NO_SETUP)}
			<h3>{arm.page ? `${arm.page}: ` : ''}“{arm.name}” against “{baselineOf(arm).name}”</h3>
			{#if differences.length}
				<ul>
					{#each differences as one, i (i)}
						<li>
							{one.component} ({one.kind}): {one.what}{#if one.fields.length}<ul>
									{#each one.fields as field, i (i)}<li>
											{field.name}: {valueOf(field.name, field.before)} → {valueOf(field.name, field.after)}
										</li>{/each}
								</ul>{/if}
						</li>
					{/each}
				</ul>
				{#if differences.length > 1}<p class="muted small">
						More than one thing differs: the answer is about all of them together.
					</p>{/if}
			{:else}<p class="muted small">The same setup.</p>{/if}
		{/each}
		{#if features.length}
			<h3>Features</h3>
			<Table
				label="Features of the variants"
				columns={featureColumns}
				rows={features}
				key={(feature) => feature}
			/>
		{/if}
	</div>
{/if}
<Button
	class="no-print"
	kind="ghost"
	size="small"
	aria-expanded={isEditing}
	on:click={() => (isEditing = !isEditing)}
	>{isEditing ? 'Close' : 'Write down what the variants run on'}</Button
>
{#if isEditing}<Lazy load={() => import('./SetupForms.svelte')} props={{ arms: compared }} />{/if}

<style>
	.small {
		font-size: var(--type-3);
	}
	h3 {
		margin-top: var(--gap-5);
	}
	ul {
		padding-left: var(--gap-6);
		list-style: disc;
	}
</style>
