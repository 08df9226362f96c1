<script lang="ts">
	/** The last day, hour by hour: how much of the processors went to something else, and which loads that disturbed. */
	import { csvText } from './csvText';
	import { CALM_LIMITS } from '$core/load/vitals/calm';
	import ChartMenu from './ChartMenu.svelte';

	interface Hour {
		/** "2026-11-27T10", UTC. */
		hour: string;
		loads: number;
		disturbed: number;
		share: number | null;
	}
	let { hours }: { hours: readonly Hour[] } = $props();
	const HEIGHT = 118;
	const TOP = 8;
	const BASE = 84;
	const LEFT = 46;
	let room = $state(800);
	let drawn: SVGSVGElement | undefined = $state();
	const step = $derived((room - LEFT) / hours.length);
	/** Shares above this leave the drawing. */
	const MOST = 0.5;
	const y = (share: number) => BASE - (Math.min(share, MOST) / MOST) * (BASE - TOP);
	const clock = (hour: string) => new Date(`${hour}:00:00Z`).getHours();
	const percent = (share: number) => `${Math.round(share * 100)} %`;
	const told = ({ hour, loads, disturbed, share }: Hour) => {
		const when = `${clock(hour)} to ${(clock(hour) + 1) % 24} h`;
		const what = share === null ? 'not watched' : `${percent(share)} to others`;
		return `${when}: ${what}${loads ? `; ${disturbed} of ${loads} loads disturbed` : ''}`;
	};
	/** Disturbed and all loads; where there is no room, the disturbed ones alone. */
	const countOf = ({ loads, disturbed }: Hour) => {
		if (step < 28) return disturbed || '';
		return disturbed ? `${disturbed}/${loads}` : loads || '';
	};
	const labelEvery = $derived(room < 620 ? 6 : 3);
	const csv = () =>
		csvText(
			['hour_utc', 'others_share', 'loads', 'disturbed'],
			hours.map(({ hour, share, loads, disturbed }) => [hour, share, loads, disturbed])
		);
</script>

<figure class="plot" bind:clientWidth={room}>
	<svg
		bind:this={drawn}
		width={room}
		height={HEIGHT}
		viewBox="0 0 {room} {HEIGHT}"
		role="img"
		aria-label={hours
			.filter(({ share }) => share !== null)
			.map(told)
			.join('. ') || 'Nothing watched in the last day'}
	>
		{#each [0, 0.25, 0.5] as tick (tick)}
			<text x={LEFT - 8} y={y(tick) + 4} text-anchor="end">{percent(tick)}</text>
			<line x1={LEFT} x2={room} y1={y(tick)} y2={y(tick)} />
		{/each}
		<line x1={LEFT} x2={room} y1={y(CALM_LIMITS.share)} y2={y(CALM_LIMITS.share)} class="limit" />
		{#each hours as hour, i (hour.hour)}
			{@const at = LEFT + i * step}
			<g>
				<title>{told(hour)}</title>
				<rect x={at} y={TOP} width={step} height={BASE - TOP} class="hit" />
				{#if hour.share !== null}<rect
						x={at + 1}
						y={y(Math.max(hour.share, 0.006))}
						width={Math.max(1, step - 2)}
						height={BASE - y(Math.max(hour.share, 0.006))}
						class:high={hour.share > CALM_LIMITS.share}
					/>{/if}
				{#if countOf(hour)}<text
						x={at + step / 2}
						y={BASE + 13}
						text-anchor="middle"
						class:troubled={hour.disturbed > 0}>{countOf(hour)}</text
					>{/if}
				{#if i % labelEvery === 0}<text x={at + step / 2} y={BASE + 29} text-anchor="middle"
						>{clock(hour.hour)} h</text
					>{/if}
			</g>
		{/each}
	</svg>
	<figcaption>
		Share of the wanted processor time that others took, by hour; below each bar its loads, disturbed ones
		first. The dashed line is the most that a counted load may lose ({percent(CALM_LIMITS.share)}).
		<ChartMenu {csv} svg={() => drawn} name="calm-day" />
	</figcaption>
</figure>

<style>
	text.troubled {
		fill: var(--worse);
		font-weight: 600;
	}
	line.limit {
		stroke: var(--focus);
		stroke-dasharray: 4 3;
	}
	rect {
		fill: var(--muted);
	}
	rect.high {
		fill: var(--worse);
	}
	rect.hit {
		fill: transparent;
	}
</style>
