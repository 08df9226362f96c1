<script lang="ts">
	/** What the client's trials have unless one says otherwise. */
	import type { ClientInput } from '$core/clients/client';
	import type { MetricId } from '$core/metrics/catalogue';
	import { marginWords, targetWords } from '$core/wording/limits';

	interface Props {
		client: ClientInput & { id: number };
		conditions: { id: string; name: string }[];
	}
	let { client, conditions }: Props = $props();
	const nameOf = (id: string) => conditions.find((one) => one.id === id)?.name ?? id;
	const margins = $derived(Object.entries(client.margins));
</script>

<dl>
	<dt>Targets</dt>
	{#each client.targets as target (`${target.metric}/${target.conditions}`)}<dd>
			{targetWords(target, target.conditions && nameOf(target.conditions))}
		</dd>{:else}<dd class="muted">The good thresholds of the metrics</dd>{/each}
	<dt>Margins</dt>
	{#each margins as [metric, margin] (metric)}<dd>
			{marginWords(metric as MetricId, margin!)}
		</dd>{:else}<dd class="muted">Those of the house</dd>{/each}
	<dt>Usual conditions</dt>
	<dd>{client.conditions.map(nameOf).join(', ') || 'Those that ship'}</dd>
	<dt>Requests that must still leave</dt>
	{#each client.mustSend as { name, pattern }, i (i)}<dd>{name}: {pattern}</dd>{:else}<dd class="muted">
			None named
		</dd>{/each}
</dl>
<a href="/clients/{client.id}/change">Change them</a>

<style>
	dt {
		font-weight: 600;
		margin-top: var(--gap-4);
	}
</style>
