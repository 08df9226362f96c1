<script lang="ts">
	/** What the chosen pages stand for, what one more would add, and a choice that is enough. */
	import { Button, ProgressBar } from 'carbon-components-svelte';
	import { coverageLine, coverageWords, nextWords, sharePercent } from '$core/wording/coverage';
	import { keepTyped } from '$lib/keepTyped';
	import Hidden from '$lib/parts/Hidden.svelte';
	import type { SampleView } from '$lib/server/rooms/pages/view';
	import { pathOf } from './pageWords';

	interface Props {
		sample: SampleView;
		action: string;
		chooseAction: string;
	}
	let { sample, action, chooseAction }: Props = $props();
	const { coverage, next, proposal } = $derived(sample);
</script>

<section class="cells panel" style:--cell="20rem" aria-label="The sample">
	<div class="words">
		<h2>{coverageWords(sample)}</h2>
		{#if coverage.types.missing.length}<p class="muted">
				No page yet of: {coverage.types.missing.join(', ')}.
			</p>{/if}
		{#if coverage.quiet}<p class="muted">
				{coverage.quiet === 1 ? 'One of them has' : `${coverage.quiet} of them have`} fewer than
				{sample.quietBelow.toLocaleString('en-GB')} visits a month: too quiet, as a rule, for field data of their
				own.
			</p>{/if}
		{#if !sample.hasTraffic}<p class="muted">
				Without a traffic table nobody can say how much of the traffic they carry.
			</p>{/if}
	</div>
	{#if coverage.traffic !== null}
		<div class="bars">
			<ProgressBar
				size="sm"
				value={coverage.traffic * 100}
				labelText="Visits to these pages: {sharePercent(coverage.traffic)}"
			/>
			<ProgressBar
				size="sm"
				value={(coverage.typeTraffic ?? 0) * 100}
				labelText="Visits to pages of their types: {sharePercent(coverage.typeTraffic ?? 0)}"
			/>
		</div>
	{/if}
	<div class="moves">
		{#if next}
			<form method="POST" action={chooseAction} use:keepTyped>
				<Hidden name="page" value={next.id} />
				<Hidden name="chosen" value="yes" />
				<Button type="submit" kind="tertiary" size="small">Add {pathOf(next.url)}</Button>
				<span class="muted">{nextWords(next)}</span>
			</form>
		{/if}
		{#if proposal}
			<form method="POST" {action} use:keepTyped>
				{#each proposal.ids as id (id)}<Hidden name="page" value={id} />{/each}
				<Button type="submit" kind={coverage.pages ? 'ghost' : 'primary'} size="small"
					>Take the proposed sample</Button
				>
				<span class="muted">{coverageLine(proposal.coverage)}</span>
			</form>
		{/if}
	</div>
</section>

<style>
	.panel {
		margin-bottom: var(--gap-7);
	}
	.bars,
	.moves {
		display: grid;
		gap: var(--gap-5);
	}
	.moves form {
		display: flex;
		flex-wrap: wrap;
		gap: var(--gap-4);
		align-items: center;
	}
	h2 {
		margin-top: 0;
	}
</style>
