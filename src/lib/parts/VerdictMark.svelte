<script lang="ts">
	import type { ShiftResult } from '$core/trial/types';
	import { wordVerdict } from '$core/wording/shift';

	let { result }: { result: Pick<ShiftResult, 'metric' | 'verdict' | 'shift'> } = $props();
	const tone = $derived(result.verdict === 'slight' ? 'slight' : result.verdict);
</script>

<span class="verdict {tone}"><i aria-hidden="true"></i>{wordVerdict(result)}</span>

<style>
	.verdict {
		display: inline-flex;
		gap: var(--gap-3);
		align-items: baseline;
		font-weight: 600;
	}
	i {
		flex: none;
		width: 0.62rem;
		height: 0.62rem;
		border: 1.5px solid currentColor;
		background: currentColor;
	}
	.slight,
	.undecided {
		color: var(--muted);
		font-weight: 400;
	}
	.slight i,
	.none i {
		background: none;
	}
	.undecided i {
		background: repeating-linear-gradient(45deg, currentColor 0 2px, transparent 2px 4px);
	}
</style>
