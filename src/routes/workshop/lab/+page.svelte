<script lang="ts">
	import { Button, Checkbox } from 'carbon-components-svelte';
	import { MOST_ROUNDS } from '$core/trial/judge/verdict';
	import { formatMoment } from '$core/wording/format';
	import CalmDay from '$lib/charts/CalmDay.svelte';
	import SpeedDots from '$lib/charts/SpeedDots.svelte';
	import { typedForm } from '$lib/typedForm';
	import Field from '$lib/parts/Field.svelte';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';

	let { data } = $props();
	const { form: typed, wrong, enhance } = typedForm(() => data.form);
	type Floor = (typeof data.floors)[number];
	const roundsOf = ({ rounds }: Floor) =>
		rounds === null ? '–' : rounds > MOST_ROUNDS ? `more than ${MOST_ROUNDS}` : String(rounds);
	const columns: Column<Floor>[] = [
		{ key: 'name', name: 'Conditions', text: ({ name }) => name },
		{ key: 'floor', name: 'Two runs of one page differ by up to' },
		{ key: 'rounds', name: 'Rounds to see 10 %', number: true, text: roundsOf },
		{
			key: 'age',
			name: 'Measured',
			text: ({ measuredAt }) => (measuredAt ? formatMoment(measuredAt) : 'never')
		}
	];
	const about = $derived(
		[
			data.browser ?? 'browser not seen yet',
			`${data.machine.processors} processors${data.machine.frequencyMhz ? ` at ${data.machine.frequencyMhz} MHz` : ''}`,
			data.day.loads
				? `${data.day.disturbed} of ${data.day.loads} loads of the last day disturbed`
				: 'no loads in the last day'
		].join('; ')
	);
</script>

<svelte:head><title>The lab – Zafra</title></svelte:head>

<div class="page">
	<h1>The lab</h1>
	<p class="sentence" class:trouble={data.fitness.code === 'busy' || data.fitness.code === 'noisy'}>
		{data.fitness.words}
	</p>
	<p class="muted">{about}.</p>

	<section>
		<h2>The last day</h2>
		<CalmDay hours={data.hours} />
	</section>

	<section>
		<h2>Noise floor</h2>
		<Table label="Noise floor by conditions" {columns} rows={data.floors} key={({ id }) => id}>
			{#snippet cell(floor, column)}
				{#if column.key === 'floor' && floor.trial !== null}<a href="/trials/{floor.trial}">{floor.words}</a>
				{:else}<span class="muted">not measured</span>{/if}
			{/snippet}
		</Table>
		<form method="POST" action="?/noise" novalidate use:enhance class="measure">
			<Field
				label="Page to load against itself"
				name="url"
				type="url"
				bind:value={$typed.url}
				wrong={$wrong('url')}
			/>
			<fieldset>
				<legend class="bx--label">Under</legend>
				<div class="row choices">
					{#each data.floors as floor (floor.id)}<Checkbox
							name="conditions"
							value={floor.id}
							labelText={floor.name}
							bind:group={$typed.conditions}
						/>{/each}
				</div>
				{#if $wrong('conditions')}<p class="wrong" role="alert">{$wrong('conditions')}</p>{/if}
			</fieldset>
			<Button type="submit" size="field" data-key="r">Measure the noise floor</Button>
		</form>
	</section>

	{#if data.usualSpeed !== null}
		<section>
			<h2>Speed of the machine</h2>
			<SpeedDots speeds={data.speeds} usual={data.usualSpeed} />
		</section>
	{/if}
</div>

<style>
	.sentence {
		font-family: var(--serif);
		font-size: var(--type-7);
		max-width: 42rem;
	}
	.sentence.trouble {
		color: var(--worse);
	}
	section {
		margin-top: var(--gap-8);
	}
	.choices :global(.bx--form-item) {
		flex: none;
		margin: 0;
	}
	.measure {
		display: grid;
		grid-template-columns: minmax(14rem, 26rem) auto auto;
		gap: var(--gap-7);
		align-items: end;
		margin-top: var(--gap-6);
	}
	@media (max-width: 42rem) {
		.measure {
			grid-template-columns: 1fr;
		}
	}
</style>
