<script lang="ts">
	/** The host as it really is: beside the figures of loads, never in them. */
	import { InlineLoading } from 'carbon-components-svelte';
	import { invalidateAll } from '$app/navigation';
	import type { HostLook } from '$core/load/requests/hostLook';
	import { formatMoment } from '$core/wording/format';
	import { hostLookRows } from '$core/wording/hostLook';
	import Action from '$lib/parts/Action.svelte';
	import Notice from '$lib/parts/Notice.svelte';

	interface Props {
		kept: { look: HostLook | null; askedAt: string | null; problem: string | null };
	}
	let { kept }: Props = $props();
	const POLL_MS = 1500;
	$effect(() => {
		if (!kept.askedAt) return;
		const timer = setInterval(() => void invalidateAll(), POLL_MS);
		return () => clearInterval(timer);
	});
</script>

<section class="panel">
	<div class="head">
		<h2>Its host, without the shaped line</h2>
		{#if kept.askedAt}<InlineLoading description="Waiting for the lab" />
		{:else}<Action
				action="?/lookAtHost"
				text={kept.look ? 'Look again' : 'Look at the host'}
				kind="tertiary"
				size="small"
			/>{/if}
	</div>
	{#if kept.problem}<Notice kind="warning" title={kept.problem} text="Try again later." />{/if}
	{#if kept.look}
		<dl>
			{#each hostLookRows(kept.look) as { name, words } (name)}<dt>{name}</dt>
				<dd class="figures">{words}</dd>{/each}
		</dl>
		<p class="muted small">
			From this machine, {formatMoment(kept.look.at)}. A resolver that knows the name already answers the first
			asking fast too. Loads have the look-up and the distance that their conditions give them.
		</p>
	{:else}<p class="muted small">
			How long its name takes to resolve, a connection to make, and whose network it stands in.
		</p>{/if}
</section>

<style>
	.head {
		display: flex;
		flex-wrap: wrap;
		gap: var(--gap-5);
		align-items: center;
		justify-content: space-between;
	}
	dl {
		display: grid;
		grid-template-columns: minmax(8rem, auto) 1fr;
		gap: var(--gap-2) var(--gap-6);
		margin: 0 0 var(--gap-4);
	}
</style>
