<script lang="ts">
	/** What each variant showed at the same three moments. */
	import type { Moment } from '$core/compare/film';
	import { formatDuration } from '$core/wording/format';

	interface Row {
		arm: number;
		load: number;
		width: number;
		height: number;
		/** Number of the frame at each moment. */
		frames: readonly number[];
	}
	interface Props {
		moments: readonly Moment[];
		arms: readonly Row[];
		nameOf: (arm: number) => string;
		colourOf: (arm: number) => string;
		label: string;
	}
	let { moments, arms, nameOf, colourOf, label }: Props = $props();
	const WORDS: Record<Moment['kind'], string> = {
		'first-paint': 'first paint',
		'first-finished': 'first one finished',
		'all-finished': 'all finished'
	};
	const isTall = $derived((arms[0]?.height ?? 1) > (arms[0]?.width ?? 1));
</script>

<table aria-label={label}>
	<thead>
		<tr>
			{#each moments as moment (moment.kind)}<th scope="col"
					><b class="figures">{formatDuration(moment.atMs)}</b><br />{WORDS[moment.kind]}</th
				>{/each}
		</tr>
	</thead>
	{#each arms as row (row.arm)}
		<tbody>
			<tr>
				<th scope="rowgroup" colspan={moments.length} class="variant"
					><i style:background={colourOf(row.arm)}></i>{nameOf(row.arm)}</th
				>
			</tr>
			<tr>
				{#each moments as moment, i (moment.kind)}
					<td
						><a href="/loads/{row.load}?open=frames#frames"
							><img
								src="/api/loads/{row.load}/frames/{row.frames[i]! + 1}"
								alt="{nameOf(row.arm)} after {formatDuration(moment.atMs)}"
								width={row.width}
								height={row.height}
								style:width="{isTall ? 50 : 72}px"
							/></a
						></td
					>
				{/each}
			</tr>
		</tbody>
	{/each}
</table>

<style>
	table {
		border-collapse: collapse;
	}
	th,
	td {
		padding: 0 var(--gap-3) var(--gap-3) 0;
		vertical-align: top;
		text-align: left;
		font-size: var(--type-2);
		line-height: 1.2;
		font-weight: 400;
		color: var(--muted);
	}
	thead th {
		width: 4.9rem;
	}
	thead b {
		white-space: nowrap;
		color: var(--ink);
	}
	.variant {
		font-weight: 600;
		color: var(--ink);
		padding-bottom: var(--gap-2);
	}
	i {
		display: inline-block;
		width: 0.55rem;
		height: 0.55rem;
		margin-right: var(--gap-2);
	}
	img {
		display: block;
		height: auto;
		border: 1px solid var(--rule);
		background: #fff;
	}
</style>
