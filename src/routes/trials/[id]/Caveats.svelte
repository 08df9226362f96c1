<script lang="ts">
	/** What a verdict must not be read without. */
	import type { SheetHead } from '$lib/server/rooms/trials/sheet/head';

	let { caveats }: { caveats: SheetHead['boards'][number]['answers'][number]['caveats'] } = $props();
	/** More are counted; the part on fairness has them all. */
	const MOST_NAMED = 3;
	const named = $derived(caveats.restsOn.slice(0, MOST_NAMED).join(', '));
	const more = $derived(caveats.restsOn.length - MOST_NAMED);
</script>

{#if caveats.broke}<p class="caveat broken">{caveats.broke}</p>{/if}
{#if caveats.held}<p class="caveat">{caveats.held}</p>{/if}
{#if caveats.restsOn.length}<p class="caveat">
		Also different: {named}{more > 0 ? ` and ${more} more` : ''}.
		<a class="no-print" href="?open=fairness#fairness">Fairness</a>
	</p>{/if}
