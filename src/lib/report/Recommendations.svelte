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
		padding-left: var(--gap-7);
		list-style: decimal;
	}
	li {
		margin-bottom: var(--gap-5);
	}
	dl {
		margin: 0;
		display: flex;
		flex-wrap: wrap;
		gap: 0 var(--gap-7);
		font-size: var(--type-4);
	}
	dl div {
		display: flex;
		gap: var(--gap-3);
	}
</style>
