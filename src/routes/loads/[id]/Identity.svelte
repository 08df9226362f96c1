<script lang="ts">
	/** Whether the page is served the same to a visitor: asked again with an ordinary browser’s name. */
	import Action from '$lib/parts/Action.svelte';
	import type { PartProps } from './partProps';

	let { data }: PartProps<'identity'> = $props();
	const { identity } = $derived(data);
</script>

{#if identity.state === 'known'}
	{#if identity.differences.length}
		<ul>
			{#each identity.differences as difference, i (i)}<li>{difference}</li>{/each}
		</ul>
	{:else}<p>
			Asked as an ordinary browser, the page showed no difference in title, words, hosts, requests or bytes
			beyond what two loads of one page differ by.
		</p>{/if}
	<p class="muted">
		<a href="/loads/{identity.load}">The load as a visitor</a>. One load each: what differs may be chance, and
		is worth a look.
	</p>
{:else if identity.state === 'waiting'}<p class="muted">The load as a visitor waits for the lab.</p>
{:else}<p>
		Some sites serve tests otherwise than visitors. The lab can ask this page once more with the name of an
		ordinary browser, and without what says that it is automated.
	</p>{/if}
<div class="no-print"><Action action="?/visitor" text="Load it as a visitor’s browser" kind="tertiary" /></div>
