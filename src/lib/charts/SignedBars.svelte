<script lang="ts">
	/** Parts of a shift as bars from a common middle: more to the right, less hollow to the left. */
	interface Props {
		rows: readonly { name: string; shift: number }[];
		valueOf: (shift: number) => string;
	}
	let { rows, valueOf }: Props = $props();
	const most = $derived(Math.max(...rows.map(({ shift }) => Math.abs(shift)), Number.MIN_VALUE));
</script>

<table>
	<tbody>
		{#each rows as { name, shift } (name)}
			<tr>
				<th scope="row">{name}</th>
				<td class="figures">{valueOf(shift)}</td>
				<td class="track" aria-hidden="true"
					><span class:less={shift < 0} style:width="{(Math.abs(shift) / most) * 50}%"></span></td
				>
			</tr>
		{/each}
	</tbody>
</table>

<style>
	table {
		width: 100%;
		border-collapse: collapse;
		font-size: var(--type-3);
	}
	th {
		font-weight: 400;
		text-align: left;
		padding: var(--gap-1) var(--gap-3) var(--gap-1) 0;
		overflow-wrap: anywhere;
	}
	td {
		text-align: right;
		white-space: nowrap;
		padding: var(--gap-1) var(--gap-3);
	}
	.track {
		width: 32%;
		position: relative;
	}
	span {
		position: absolute;
		left: 50%;
		top: 0.35rem;
		height: 0.6rem;
		background: var(--ink);
	}
	span.less {
		left: auto;
		right: 50%;
		background: none;
		border: 1px solid var(--ink);
	}
</style>
