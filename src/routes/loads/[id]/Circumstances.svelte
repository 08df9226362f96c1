<script lang="ts">
	/** Under which conditions, on which machine, over which line. */
	import { counted, formatDuration, formatValue } from '$core/wording/format';
	import type { PartProps } from './partProps';

	let { data }: PartProps<'circumstances'> = $props();
	const { record, environment } = $derived(data);
	const speed = (value: number | null) => value?.toFixed(0) ?? '–';
	const machine = $derived.by(() => {
		const { machineSpeed, slowdown, reachedSpeed } = environment;
		const around = `${speed(machineSpeed.before)} loops/ms before, ${speed(machineSpeed.after)} after`;
		return `${around}; slowed ${slowdown.toFixed(1)} times to ${speed(reachedSpeed)}`;
	});
</script>

<dl>
	<dt>Conditions</dt>
	<dd>{data.detail ?? 'unknown'}</dd>
	<dt>Browser</dt>
	<dd>{environment.browser}</dd>
	{#if record.source === 'lab'}
		<dt class="no-print">Machine</dt>
		<dd class="no-print">{machine}</dd>
		{#if data.calm}<dt class="no-print">Calm</dt>
			<dd class="no-print">{data.calm}</dd>{/if}
		{#if environment.paths.length}<dt>Real way</dt>
			<dd>
				{environment.paths
					.map(
						({ host, realMs, wantedMs }) =>
							`${host} ${formatDuration(realMs)} of ${formatDuration(wantedMs)} wanted`
					)
					.join('; ')}
			</dd>{/if}
		{#if environment.network}<dt>Line</dt>
			<dd>
				{environment.network.mostConnections} connections at most; {formatValue(
					'wire',
					environment.network.downBytes
				)} down, {formatValue('wire', environment.network.upBytes)} up, TLS and all
			</dd>{/if}
		{#if data.host}<dt>Real host</dt>
			<dd>{data.host}</dd>{/if}
		{#if data.rewriting}<dt>Rehearsal</dt>
			<dd>
				The page was changed by the lab on its way{data.rewriting.twin
					? `, and answered as it had come once: ${data.rewriting.fromTwin} of ${data.rewriting.requests} requests`
					: ''}.
				{#each data.rewriting.done as { words, times }, i (i)}<div>
						{words}: {counted(times, 'time')}
					</div>{/each}
				{#each data.rewriting.notes as note (note)}<div>{note}</div>{/each}
			</dd>{/if}
		<dt>Settled</dt>
		<dd>
			{data.settledMs === null ? '–' : formatDuration(data.settledMs)}{data.capped ? ', at the time cap' : ''}
		</dd>
		<dt>Score recipe</dt>
		<dd>{data.recipe}</dd>
	{/if}
	{#if data.redirects.length}<dt>Redirects</dt>
		<dd>
			{#each data.redirects as step, i (i)}<div>{step}</div>{/each}
		</dd>{/if}
</dl>

<style>
	dl {
		display: grid;
		grid-template-columns: 8rem 1fr;
		gap: var(--gap-3) var(--gap-6);
		margin: 0;
	}
</style>
