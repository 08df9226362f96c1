<script lang="ts">
	/** Says when the reference page is much lighter or heavier than the page, as far as both were ever loaded. */
	import { isUnlike } from '$core/trial/judge/referenceWeight';
	import { formatDuration } from '$core/wording/format';
	import type { LabFigures } from '$lib/server/rooms/loads/pageFigures';

	interface Props {
		page: string;
		reference: string;
		/** Ids of the chosen conditions. */
		conditions: readonly string[];
	}
	let { page, reference, conditions }: Props = $props();
	let known = $state<{ page: LabFigures[]; reference: LabFigures[] } | null>(null);

	const WAIT_MS = 400;
	async function figuresOf(url: string): Promise<LabFigures[]> {
		const answer = await fetch(`/api/loads/figures?url=${encodeURIComponent(url)}`);
		return answer.ok ? ((await answer.json()) as LabFigures[]) : [];
	}
	$effect(() => {
		const urls = [page.trim(), reference.trim()] as const;
		known = null;
		if (!urls.every((url) => URL.canParse(url))) return;
		let isOld = false;
		const timer = setTimeout(async () => {
			const [own, other] = await Promise.all([figuresOf(urls[0]), figuresOf(urls[1])]).catch(() => [[], []]);
			if (!isOld) known = { page: own!, reference: other! };
		}, WAIT_MS);
		return () => {
			isOld = true;
			clearTimeout(timer);
		};
	});
	const unlike = $derived(
		conditions.flatMap((id) => {
			const middleOf = (figures: readonly LabFigures[]) =>
				figures.find(({ conditionId }) => conditionId === id)?.figures.lcp ?? null;
			const [own, other] = [middleOf(known?.page ?? []), middleOf(known?.reference ?? [])];
			return own !== null && other !== null && isUnlike(own, other) ? [{ own, other }] : [];
		})[0] ?? null
	);
</script>

{#if unlike}
	<p class="small" role="status">
		The reference’s largest paint was {formatDuration(unlike.other)}, the page’s {formatDuration(unlike.own)}:
		drift is told best by a page that is about as heavy, between half and twice.
	</p>
{/if}
