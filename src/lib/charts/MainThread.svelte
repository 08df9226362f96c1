<script lang="ts">
	/** Long tasks on the load's time axis, split by whose scripts ran in them. */
	import { scaleLinear } from 'd3-scale';
	import { csvText } from './csvText';
	import type { OwnedTask, OwnerTime } from '$core/load/vitals/mainThread';
	import { formatDuration } from '$core/wording/format';
	import ChartMenu from './ChartMenu.svelte';
	import type { OwnerColours } from './ownerColour';

	interface Props {
		tasks: OwnedTask[];
		times: OwnerTime[];
		endMs: number;
		lines: { name: string; atMs: number }[];
		colours: OwnerColours;
	}
	let { tasks, times, endMs, lines, colours }: Props = $props();
	let room = $state(900);
	let drawn: SVGSVGElement | undefined = $state();
	const left = $derived(room < 620 ? 112 : 226);
	const right = $derived(room < 620 ? 8 : 82);
	const x = $derived(scaleLinear([0, endMs * 1.02], [left, room - right]));
	const HEIGHT = 62;
	const csv = () =>
		csvText(
			['start', 'duration', 'blocking', 'owner', 'owner_duration', 'script'],
			tasks.flatMap((task) =>
				task.shares.map((share) => [
					task.startMs,
					task.durationMs,
					task.blockingMs,
					share.owner.name,
					share.durationMs,
					share.url
				])
			)
		);
</script>

<figure bind:clientWidth={room}>
	<svg
		bind:this={drawn}
		width={room}
		height={HEIGHT}
		viewBox="0 0 {room} {HEIGHT}"
		role="img"
		aria-label="{tasks.length} long tasks over time, coloured by whose scripts ran"
	>
		<text x={left - 8} y="30" text-anchor="end" class="name">Main thread</text>
		<line x1={left} x2={room - right} y1="40" y2="40" class="base" />
		{#each tasks as task (task.startMs)}
			{@const width = Math.max(1.5, x(task.startMs + task.durationMs) - x(task.startMs))}
			{#each task.shares as share, i (i)}
				{@const before = task.shares.slice(0, i).reduce((sum, one) => sum + one.durationMs, 0)}
				<rect
					x={x(task.startMs) + (width * before) / task.durationMs}
					y="14"
					width={Math.max(0.8, (width * share.durationMs) / task.durationMs)}
					height="26"
					fill={colours(share.owner.id, share.owner.kind)}
				>
					<title
						>{formatDuration(task.startMs)}: {formatDuration(task.durationMs)}, of it {share.owner.name}
						{formatDuration(share.durationMs)}</title
					>
				</rect>
			{/each}
		{/each}
		{#each lines as line, i (i)}<line x1={x(line.atMs)} x2={x(line.atMs)} y1="4" y2="44" class="plumb" /><text
				x={x(line.atMs) + 3}
				y="11"
				class="tick">{line.name}</text
			>{/each}
		{#each x.ticks(6) as tick (tick)}<text x={x(tick)} y="56" class="tick">{formatDuration(tick)}</text>{/each}
	</svg>
	<table class="ledger">
		<thead
			><tr
				><th scope="col">Owner of the script</th><th scope="col" class="number">In long tasks</th><th
					scope="col"
					class="number">Of it blocking</th
				><th scope="col" class="number">Tasks</th></tr
			></thead
		>
		<tbody>
			{#each times as time (time.owner.id)}
				<tr
					><th scope="row"
						><i class="swatch" style:background={colours(time.owner.id, time.owner.kind)}></i>{time.owner
							.name}{time.owner.kind === 'third-party' ? ', third party' : ''}</th
					><td class="number">{formatDuration(time.durationMs)}</td><td class="number"
						>{formatDuration(time.blockingMs)}</td
					><td class="number">{time.tasks}</td></tr
				>
			{/each}
		</tbody>
	</table>
	<figcaption>
		{tasks.length}
		{tasks.length === 1 ? 'task' : 'tasks'} of more than 50 ms; {formatDuration(
			tasks.reduce((sum, task) => sum + task.blockingMs, 0)
		)} of their time counts as blocking (TBT).
		<ChartMenu {csv} svg={() => drawn} name="main-thread" />
	</figcaption>
</figure>

<style>
	svg {
		max-width: 100%;
		display: block;
	}
	text {
		font-family: var(--sans);
		font-variant-numeric: tabular-nums;
		fill: var(--ink);
	}
	.name {
		font-size: var(--type-2);
	}
	.base {
		stroke: var(--rule);
	}
	.plumb {
		stroke: var(--focus);
		stroke-dasharray: 3 2;
	}
	th[scope='row'] {
		font-weight: 400;
	}
	table {
		max-width: 44rem;
	}
</style>
