<script lang="ts">
	/** Many variants: variants as rows, metrics as columns of small boards on the same axis, sortable by a metric. */
	import type { BoardRow } from '$core/wording/board';
	import BoardTrack from './BoardTrack.svelte';
	import { bySize } from './shiftBoardLayout';

	interface Variant {
		arm: number;
		name: string;
		colour: string;
		rows: readonly BoardRow[];
	}
	interface Props {
		label: string;
		variants: readonly Variant[];
		evidence: (metric: string, arm: number) => string;
	}
	let { label, variants, evidence }: Props = $props();
	const heads = $derived(variants[0]?.rows ?? []);
	let sorted = $state('');
	let shown = $state('');
	const markOf = (variant: Variant, metric: string) => variant.rows.find((row) => row.metric === metric);
	const listed = $derived(
		sorted ? [...variants].sort((a, b) => bySize(markOf(a, sorted), markOf(b, sorted))) : variants
	);
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="scroller" role="region" aria-label={label} tabindex="0">
	<table aria-label={label}>
		<thead>
			<tr>
				<th scope="col">Variant</th>
				{#each heads as head (head.metric)}
					<th scope="col" aria-sort={sorted === head.metric ? 'ascending' : 'none'}
						><button type="button" onclick={() => (sorted = sorted === head.metric ? '' : head.metric)}
							>{head.name}{sorted === head.metric ? ' ▴' : ''}</button
						></th
					>
				{/each}
			</tr>
		</thead>
		<tbody>
			{#each listed as variant (variant.arm)}
				<tr>
					<th scope="row"><i class="swatch" style:background={variant.colour}></i>{variant.name}</th>
					{#each heads as head (head.metric)}
						{@const row = markOf(variant, head.metric)}
						<td>
							{#if row}<a
									href={evidence(row.metric, variant.arm)}
									class={row.verdict}
									onmouseenter={() => (shown = row.text)}
									onmouseleave={() => (shown = '')}
									onfocus={() => (shown = row.text)}
									onblur={() => (shown = '')}
									><BoardTrack mark={row} height={20} /><span
										>{row.arm}{row.verdict === 'same' ? '' : ' '}{#if row.verdict !== 'same'}
											<b>{row.word}</b>{/if}</span
									><span class="visually-hidden">. {variant.name}: {row.text}</span></a
								>{/if}
						</td>
					{/each}
				</tr>
			{/each}
		</tbody>
	</table>
</div>
<p class="readout" aria-hidden="true">
	{shown || 'Better is left, worse is right, the band is the margin. Point at a mark for its interval.'}
</p>

<style>
	.scroller {
		overflow-x: auto;
		position: relative;
	}
	table {
		width: 100%;
		border-collapse: collapse;
		min-width: 46rem;
	}
	th,
	td {
		text-align: left;
		padding: var(--gap-2) var(--gap-4) var(--gap-2) 0;
		border-bottom: 1px solid var(--rule);
		font-weight: 400;
		vertical-align: top;
	}
	thead th {
		color: var(--muted);
		font-size: var(--type-3);
	}
	th[scope='row'] {
		font-weight: 600;
		min-width: 8rem;
	}
	button {
		border: 0;
		background: none;
		padding: var(--gap-2) 0;
		color: var(--muted);
		font-size: var(--type-3);
		text-align: left;
		cursor: pointer;
	}
	td a {
		color: var(--muted);
		text-decoration: none;
		display: block;
		font-size: var(--type-2);
		line-height: 1.2;
	}
	b {
		font-weight: 400;
	}
	.better b,
	.worse b {
		font-weight: 600;
	}
	.better b {
		color: var(--better);
	}
	.worse b {
		color: var(--worse);
	}
	i {
		display: inline-block;
		width: 0.7rem;
		height: 0.7rem;
		margin-right: var(--gap-3);
	}
	.readout {
		font-size: var(--type-3);
		color: var(--muted);
		margin: var(--gap-3) 0 0;
		min-height: 2.5em;
		max-width: none;
	}
</style>
