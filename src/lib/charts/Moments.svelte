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
			<td></td>
			{#each moments as moment (moment.kind)}<th scope="col"
					><b class="figures">{formatDuration(moment.atMs)}</b><br />{WORDS[moment.kind]}</th
				>{/each}
		</tr>
	</thead>
	<tbody>
		{#each arms as row (row.arm)}
			<tr>
				<th scope="row"><i style:background={colourOf(row.arm)}></i>{nameOf(row.arm)}</th>
				{#each moments as moment, i (moment.kind)}
					<td
						><a href="/loads/{row.load}?open=frames#frames"
							><img
								src="/api/loads/{row.load}/frames/{row.frames[i]! + 1}"
								alt="{nameOf(row.arm)} after {formatDuration(moment.atMs)}"
								width={row.width}
								height={row.height}
								style:width="{isTall ? 52 : 70}px"
							/></a
						></td
					>
				{/each}
			</tr>
		{/each}
	</tbody>
</table>

<style>
	table {
		border-collapse: collapse;
	}
	th,
	td {
		padding: 0 0.45rem 0.35rem 0;
		vertical-align: top;
		text-align: left;
		font-size: 0.78rem;
		line-height: 1.2;
		font-weight: 400;
		color: var(--muted);
	}
	thead th {
		max-width: 4rem;
	}
	thead b {
		white-space: nowrap;
		color: var(--ink);
	}
	th[scope='row'] {
		font-weight: 600;
		width: 4.6rem;
		overflow-wrap: anywhere;
	}
	i {
		display: inline-block;
		width: 0.55rem;
		height: 0.55rem;
		margin-right: 0.25rem;
	}
	img {
		display: block;
		height: auto;
		border: 1px solid var(--rule);
		background: #fff;
	}
</style>
