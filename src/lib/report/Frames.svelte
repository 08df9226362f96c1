<svelte:options css="injected" />

<script lang="ts">
	/** Variants as rows, equal time steps as columns. */
	import type { BlockBody } from '$core/report/view';

	interface Props {
		body: Extract<BlockBody, { kind: 'frames' }>;
		pictureOf: (key: string) => string;
	}
	let { body, pictureOf }: Props = $props();
	/** What is in the page already need not wait to be seen: paper shows all. */
	const loadingOf = (source: string) => (source.startsWith('data:') ? 'eager' : 'lazy');
</script>

{#each body.strips as strip, n (n)}
	<table class="together">
		<caption>{strip.title}</caption>
		<thead>
			<tr
				>{#each strip.times as time (time)}<th scope="col">{time}</th>{/each}</tr
			>
		</thead>
		<tbody>
			{#each strip.arms as arm, row (row)}
				<tr><th scope="rowgroup" colspan={strip.times.length} dir="auto">{arm.name}</th></tr>
				<tr>
					{#each arm.pictures as { key, alt, width, height }, i (i)}<td
							><img src={pictureOf(key)} {alt} {width} {height} loading={loadingOf(pictureOf(key))} /></td
						>{/each}
				</tr>
			{/each}
		</tbody>
	</table>
{/each}

<style>
	table {
		border-collapse: collapse;
		width: 100%;
		table-layout: fixed;
		margin: 0.4rem 0 1.2rem;
	}
	caption {
		text-align: left;
		font-weight: 600;
	}
	th {
		font-weight: 400;
		font-size: 0.82rem;
		color: var(--muted);
		text-align: left;
	}
	th[scope='rowgroup'] {
		color: var(--ink);
		font-weight: 600;
		padding-top: 0.4rem;
	}
	td {
		padding: 0 0.3rem 0 0;
		vertical-align: top;
	}
	img {
		width: 100%;
		height: auto;
		border: 1px solid var(--rule);
		display: block;
		background: #fff;
	}
</style>
