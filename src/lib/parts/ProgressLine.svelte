<script lang="ts">
	let { done, total, note = '' }: { done: number; total: number; note?: string } = $props();
	const share = $derived(total ? done / total : 0);
</script>

<div class="progress">
	<div
		class="bar"
		role="progressbar"
		aria-label="Loads"
		aria-valuemin="0"
		aria-valuemax={total}
		aria-valuenow={done}
	>
		<span style:width="{share * 100}%"></span>
	</div>
	<span class="figures">{done} of {total} loads{note ? `, ${note}` : ''}</span>
</div>

<style>
	.progress {
		display: flex;
		gap: 0.8rem;
		align-items: center;
		margin-top: 0.4rem;
		font-size: 0.92rem;
	}
	.bar {
		flex: 1;
		max-width: 22rem;
		height: 8px;
		background: var(--wash);
		border: 1px solid var(--rule);
	}
	.bar span {
		display: block;
		height: 100%;
		background: var(--action);
		transition: width 0.3s;
	}
</style>
