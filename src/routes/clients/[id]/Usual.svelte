<script lang="ts">
	/** What the client's trials have unless one says otherwise. */
	import type { ClientInput } from '$core/clients/client';
	import { metricOf } from '$core/metrics/catalogue';
	import { formatIn, formatValue } from '$core/wording/format';

	interface Props {
		client: ClientInput & { id: number };
		conditions: { id: string; name: string }[];
	}
	let { client, conditions }: Props = $props();
	const nameOf = (id: string | null) =>
		id === null ? 'all conditions' : (conditions.find((one) => one.id === id)?.name ?? id);
	const margins = $derived(Object.entries(client.margins));
</script>

<dl>
	<dt>Targets</dt>
	{#each client.targets as { metric, conditions: under, value } (`${metric}/${under}`)}<dd>
			{metricOf(metric).name}, {nameOf(under)}: {formatValue(metric, value)}
		</dd>{:else}<dd class="muted">The good thresholds of the metrics</dd>{/each}
	<dt>Margins</dt>
	{#each margins as [metric, margin] (metric)}<dd>
			{metricOf(metric).name}: the larger of {formatIn(metricOf(metric).unit, margin!.absolute)} and {margin!
				.relative * 100} %
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
		margin-top: 0.6rem;
	}
	dd {
		margin: 0;
	}
</style>
