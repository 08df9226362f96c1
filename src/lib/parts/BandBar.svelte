<script lang="ts">
	/** Good / needs improvement / poor as three cells with one filled, always with the word. */
	import type { Band } from '$core/metrics/catalogue';

	let { band }: { band: Band } = $props();
	const BANDS: Band[] = ['good', 'needs improvement', 'poor'];
</script>

<span class="band">
	<span class="cells" aria-hidden="true"
		>{#each BANDS as one, i (one)}<i class="b{i}" class:on={one === band}></i>{/each}</span
	>{band}
</span>

<style>
	.band {
		display: inline-flex;
		gap: var(--gap-3);
		align-items: center;
		font-size: var(--type-3);
		white-space: nowrap;
	}
	.cells {
		display: inline-flex;
		gap: 2px;
	}
	i {
		width: 0.8rem;
		height: 0.55rem;
		border: 1px solid var(--rule);
	}
	.on.b0 {
		background: var(--better);
	}
	.on.b1 {
		background: var(--middling);
	}
	.on.b2 {
		background: var(--worse);
	}
</style>
