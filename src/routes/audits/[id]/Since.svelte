<script lang="ts">
	/** What became of the findings of the audit before. */
	import { Tag } from 'carbon-components-svelte';
	import { group } from 'd3-array';
	import { FATES, type Fate } from '$core/findings/since';
	import type { AuditView } from '$lib/server/rooms/audits/view';

	let { since }: { since: AuditView['since'] } = $props();
	const byFate = $derived(group(since, ({ fate }) => fate));
	const NAMES: Record<Fate, string> = {
		gone: 'Gone',
		left: 'Left',
		new: 'New',
		'not-seen': 'Not seen this time'
	};
	const COLOURS = { gone: 'teal', left: 'gray', new: 'magenta', 'not-seen': 'outline' } as const;
	/** More are counted. */
	const MOST_NAMED = 6;
	function namesOf(fate: Fate): string {
		const titles = [...new Set(byFate.get(fate)!.map(({ title }) => title))];
		const more = titles.length - MOST_NAMED;
		return titles.slice(0, MOST_NAMED).join('; ') + (more > 0 ? `; and ${more} more` : '');
	}
	const shown = $derived(FATES.filter((fate) => fate !== 'left' && byFate.has(fate)));
</script>

<section aria-label="Since the audit before">
	<p class="row">
		{#each FATES as fate (fate)}{#if byFate.has(fate)}<Tag size="sm" type={COLOURS[fate]}
					>{NAMES[fate]}: {byFate.get(fate)!.length}</Tag
				>{/if}{/each}
		<span class="muted small">against the audit before: gone where three good loads no longer show it</span>
	</p>
	{#each shown as fate (fate)}
		<p class="small">
			<b>{NAMES[fate]}:</b>
			{namesOf(fate)}
		</p>
	{/each}
</section>

<style>
	.row {
		display: flex;
		flex-wrap: wrap;
		gap: var(--gap-3);
		align-items: center;
	}
	p {
		margin: 0 0 var(--gap-3);
		max-width: none;
	}
</style>
