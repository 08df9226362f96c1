<script lang="ts">
	/** Whether the arm still does and shows what the baseline does. */
	import { PICTURE_WITHIN, type Regressions } from '$core/compare/regressions';

	interface Props {
		broke: Regressions;
		picture: string | null;
		baseline: string;
		arm: string;
	}
	let { broke, picture, baseline, arm }: Props = $props();
	const looks = $derived(
		broke.pictureShare === null
			? 'The finished pages could not be compared: a picture is missing.'
			: broke.pictureShare <= PICTURE_WITHIN
				? `The finished pages look alike: ${(broke.pictureShare * 100).toFixed(1)} % of the picture differs.`
				: `${(broke.pictureShare * 100).toFixed(1)} % of the picture differs. Look whether that is meant.`
	);
	const stepWords = ([ok, of]: [number, number]) => `${ok} of ${of} loads`;
</script>

<div class="row">
	<ul>
		<li class:bad={(broke.pictureShare ?? 0) > PICTURE_WITHIN}>{looks}</li>
		<li class:bad={broke.newErrors.length > 0}>
			{broke.newErrors.length
				? `New errors in the console of “${arm}”:`
				: `No console error that “${baseline}” does not have.`}
			{#each broke.newErrors.slice(0, 5) as message, i (i)}<div class="quote">{message}</div>{/each}
		</li>
		<li class:bad={broke.newFailures.length > 0}>
			{broke.newFailures.length
				? `Requests that fail only in “${arm}”:`
				: `No request fails that does not fail in “${baseline}”.`}
			{#each broke.newFailures.slice(0, 5) as key, i (i)}<div class="quote">{key}</div>{/each}
		</li>
		{#if broke.vanished.length}<li>
				{broke.vanished.length === 1 ? 'One request' : `${broke.vanished.length} requests`} of “{baseline}” that
				“{arm}” no longer sends:
				{#each broke.vanished.slice(0, 5) as key, i (i)}<div class="quote">{key}</div>{/each}
				{#if broke.vanished.length > 5}<div class="quote">and {broke.vanished.length - 5} more</div>{/if}
			</li>{/if}
		{#if broke.steps.before[1] + broke.steps.after[1] > 0}
			<li class:bad={broke.steps.failed !== null}>
				Steps: all went well in {stepWords(broke.steps.before)} of “{baseline}” and {stepWords(
					broke.steps.after
				)} of “{arm}”{broke.steps.failed ? `; first to fail: ${broke.steps.failed}` : ''}.
			</li>
		{:else}<li class="muted">No steps were asked for: whether menus and buttons work was not checked.</li>{/if}
	</ul>
	{#if picture && (broke.pictureShare ?? 0) > 0.001}
		<figure>
			<img src={picture} alt="Where the finished page of {arm} differs from {baseline}" loading="lazy" />
			<figcaption>“{arm}”; what differs from “{baseline}” is marked, what moves by itself is not.</figcaption>
		</figure>
	{/if}
</div>

<style>
	.row {
		display: flex;
		gap: var(--gap-7);
		flex-wrap: wrap;
	}
	ul {
		flex: 1 1 22rem;
		padding: 0;
		list-style: none;
	}
	li {
		border-left: 3px solid var(--rule);
		padding: var(--gap-2) 0 var(--gap-2) var(--gap-5);
		margin-bottom: var(--gap-3);
	}
	.bad {
		border-left-color: var(--worse);
		font-weight: 600;
	}
	.quote {
		font-weight: 400;
		font-size: var(--type-3);
		overflow-wrap: anywhere;
		color: var(--muted);
	}
	figure {
		margin: 0;
		max-width: 260px;
	}
	img {
		width: 100%;
		border: 1px solid var(--rule);
	}
	figcaption {
		font-size: var(--type-2);
		color: var(--muted);
	}
</style>
