<script lang="ts">
	import { Button } from 'carbon-components-svelte';
	/** The finished page with the LCP element outlined and each shift as boxes from and to, stepped through in time. */
	import type { Box, LcpRecord, ShiftRecord } from '$core/load/record/record';
	import { formatDuration, formatValue } from '$core/wording/format';

	interface Props {
		picture: string;
		width: number;
		height: number;
		lcp: LcpRecord | null;
		shifts: ShiftRecord[];
		asked?: Record<string, string>;
		onchange?: (values: Record<string, string>) => void;
	}
	let { picture, width, height, lcp, shifts, asked = {}, onchange = () => undefined }: Props = $props();

	const moved = $derived(shifts.filter((shift) => shift.value >= 0.0005));
	/** 0 shows the LCP element, n the nth shift. */
	let at = $derived(Math.max(0, Number(asked.shift) || 0));
	const step = $derived(Math.min(at, moved.length));
	const shift = $derived(step > 0 ? moved[step - 1]! : null);
	function go(to: number) {
		at = Math.max(0, Math.min(moved.length, to));
		onchange({ shift: at ? String(at) : '' });
	}
	const place = ({ x, y, width: w, height: h }: Box) =>
		`left:${(x / width) * 100}%;top:${(y / height) * 100}%;width:${(w / width) * 100}%;height:${(h / height) * 100}%`;
	const arrow = ({ from, to }: { from: Box; to: Box }) => ({
		x1: from.x + from.width / 2,
		y1: from.y + from.height / 2,
		x2: to.x + to.width / 2,
		y2: to.y + to.height / 2
	});
	/** What came in by a shift has no place before it. */
	const isNew = (box: Box) => box.width === 0 || box.height === 0;
</script>

<div class="seen">
	<figure style:aspect-ratio="{width} / {height}" style:max-width="{width < height ? 300 : 640}px">
		<img src={picture} alt="The finished page as the visitor sees it first" {width} {height} />
		{#if !shift && lcp?.box}<div class="lcp" style={place(lcp.box)}></div>{/if}
		{#if shift}
			{#each shift.elements as element, i (i)}
				{#if !isNew(element.from)}<div class="from" style={place(element.from)}></div>{/if}
				{#if !isNew(element.to)}<div class="to" style={place(element.to)}></div>{/if}
			{/each}
			<svg viewBox="0 0 {width} {height}" aria-hidden="true">
				{#each shift.elements as element, i (i)}
					{#if !isNew(element.from) && !isNew(element.to)}{@const line = arrow(element)}<line
							{...line}
							vector-effect="non-scaling-stroke"
						/><circle cx={line.x2} cy={line.y2} r={width / 140} />{/if}
				{/each}
			</svg>
		{/if}
	</figure>
	<div class="words">
		<div class="stepper no-print" role="group" aria-label="What is drawn on the picture">
			<Button kind="tertiary" size="small" aria-pressed={step === 0} on:click={() => go(0)}>LCP element</Button>
			{#if moved.length}
				<Button kind="ghost" size="small" disabled={step === 0} on:click={() => go(step - 1)}
					>‹ Shift before</Button
				>
				<Button kind="ghost" size="small" disabled={step === moved.length} on:click={() => go(step + 1)}
					>Next shift ›</Button
				>
			{/if}
		</div>
		<div aria-live="polite">
			{#if !shift}
				{#if lcp}
					<h3>Largest Contentful Paint, outlined</h3>
					<p>
						{formatDuration(lcp.atMs)}: <code>{lcp.selector ?? 'an element that is gone'}</code>{lcp.text
							? ` “${lcp.text}”`
							: ''}
					</p>
					{#if lcp.url}<p class="address">{lcp.url}</p>{/if}
					{#if !lcp.box}<p class="muted">The element was gone when the page had settled.</p>{/if}
				{:else}<p>No text and no image was painted.</p>{/if}
			{:else}
				<h3>Shift {step} of {moved.length}, at {formatDuration(shift.atMs)}</h3>
				<p>
					<b class="figures">{formatValue('cls', shift.value)}</b>{shift.recentInput
						? ': excluded from CLS by the browser, just after input or a change of the viewport'
						: ''}. Dashed is where it was, full is where it went.
				</p>
				<ul>
					{#each shift.elements as element, i (i)}
						<li>
							<code>{element.selector}</code>
							{isNew(element.from)
								? 'came in'
								: isNew(element.to)
									? 'went away'
									: `moved ${Math.round(Math.hypot(element.to.x - element.from.x, element.to.y - element.from.y))} px`}
						</li>
					{/each}
				</ul>
			{/if}
		</div>
		{#if moved.length}
			<h3>What moved</h3>
			<ol>
				{#each moved as one, i (i)}
					<li>
						<Button kind="ghost" size="small" aria-current={step === i + 1} on:click={() => go(i + 1)}
							><span class="figures">{formatDuration(one.atMs)}: {formatValue('cls', one.value)}</span></Button
						> <code>{one.elements[0]?.selector ?? ''}</code>{one.elements.length > 1
							? ` and ${one.elements.length - 1} more`
							: ''}{one.recentInput ? ', excluded' : ''}
					</li>
				{/each}
			</ol>
		{:else}<p>Nothing moved.</p>{/if}
	</div>
</div>

<style>
	.seen {
		display: flex;
		gap: var(--gap-7);
		flex-wrap: wrap;
	}
	.words {
		flex: 1;
		min-width: min(100%, 17rem);
	}
	figure {
		position: relative;
		margin: 0;
		width: 100%;
		border: 1px solid var(--rule);
		overflow: hidden;
	}
	img {
		width: 100%;
		height: 100%;
		display: block;
	}
	svg {
		position: absolute;
		inset: 0;
		width: 100%;
		height: 100%;
	}
	line {
		stroke: var(--shift-on-picture);
		stroke-width: 2;
	}
	circle {
		fill: var(--shift-on-picture);
	}
	.lcp,
	.from,
	.to {
		position: absolute;
		box-shadow: 0 0 0 1px #fff;
	}
	.lcp {
		border: 3px solid #1d2b26;
	}
	.from {
		border: 2px dashed var(--shift-on-picture);
	}
	.to {
		border: 2px solid var(--shift-on-picture);
		background: color-mix(in srgb, var(--shift-on-picture) 14%, transparent);
	}
	figure {
		--shift-on-picture: #8a2e4f;
	}
	.stepper {
		display: flex;
		gap: var(--gap-3);
		margin-bottom: var(--gap-5);
	}
	.address {
		overflow-wrap: anywhere;
		color: var(--muted);
		font-size: var(--type-3);
	}
	ul,
	ol {
		padding-left: var(--gap-6);
		list-style: disc;
	}
	ol {
		list-style: decimal;
	}
	code {
		font-size: var(--type-3);
		overflow-wrap: anywhere;
	}
	h3 {
		margin-top: var(--gap-4);
	}
</style>
