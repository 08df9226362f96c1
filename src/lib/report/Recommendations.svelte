<svelte:options css="injected" />

<script lang="ts">
	/** What to do, in order: who, what it gains, how hard it is, how one sees that it is done. */
	import type { BlockBody } from '$core/report/view';

	let { body }: { body: Extract<BlockBody, { kind: 'recommendations' }> } = $props();
</script>

<ol>
	{#each body.items as { what, facts }, n (n)}
		<li>
			<b dir="auto">{what}</b>
			<dl>
				{#each facts as { name, text } (name)}<div>
						<dt>{name}</dt>
						<dd dir="auto">{text}</dd>
					</div>{/each}
			</dl>
		</li>
	{/each}
</ol>

<style>
	ol {
		margin: 0;
		padding-left: 1.4rem;
		list-style: decimal;
	}
	li {
		margin-bottom: 0.8rem;
	}
	dl {
		margin: 0;
		display: flex;
		flex-wrap: wrap;
		gap: 0 1.2rem;
		font-size: 0.92rem;
	}
	dl div {
		display: flex;
		gap: 0.35rem;
	}
	dt {
		color: var(--muted);
	}
	dd {
		margin: 0;
	}
</style>
