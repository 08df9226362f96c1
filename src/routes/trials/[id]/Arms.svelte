<script lang="ts">
	/** The variants, what they run on, and what was changed between them. */
	import { coldLine } from '$core/trial/design/cold';
	import { formatMoment } from '$core/wording/format';
	import type { PartProps } from './partProps';
	import ColdMix from './ColdMix.svelte';
	import Setups from './Setups.svelte';

	let { data, colourOf }: PartProps<'arms'> = $props();
	const trial = $derived(data.trial);
	const compared = $derived(data.arms.filter((arm) => !arm.reference));
	const cold = $derived(compared.filter((arm) => arm.cold));
	/** Cold variants of a page whose baseline is loaded warm. */
	const mixes = $derived(
		data.coldPaints.flatMap(({ condition, arm, baselineMedian, armMedian }) =>
			baselineMedian === null || armMedian === null
				? []
				: [
						{
							key: `${condition}/${arm}`,
							name: `${nameOf(arm)}, ${conditionName(condition)}`,
							warm: baselineMedian,
							cold: armMedian
						}
					]
		)
	);
	const nameOf = (id: number) => data.arms.find((arm) => arm.id === id)?.name ?? '';
	const conditionName = (id: string) => data.conditions.find((one) => one.id === id)?.name ?? id;
</script>

<div class="arms">
	<Setups arms={data.arms} kind={trial.kind} {colourOf} />
	{#each compared.filter((arm) => arm.visitor) as arm (arm.id)}<p>
			“{arm.name}” is loaded by a visitor who is “{arm.visitor}”.
		</p>{/each}
	{#each cold as arm (arm.id)}<p>
			“{arm.name}” is loaded with the site’s cache empty each time: {coldLine(arm.cold!)}.
		</p>{/each}
	{#if mixes.length}<ColdMix {mixes} />{/if}
	{#if data.presence.length}
		<h3>Did the change take effect?</h3>
		<ul class="plain">
			{#each data.presence as seen (`${seen.condition}/${seen.arm}`)}
				{#each seen.checks as check, i (i)}<li class:bad={check.met < check.loads}>
						“{nameOf(seen.arm)}”, {conditionName(seen.condition)}: {check.check}, met in {check.met} of {check.loads}
						{check.loads === 1 ? 'load' : 'loads'}
					</li>{/each}
			{/each}
		</ul>
	{/if}
	{#if data.markers.length}
		<h3>What was changed between the stages</h3>
		<ul class="plain">
			{#each data.markers as marker (marker.id)}
				<li>
					{formatMoment(marker.at)}, before “{compared[marker.stage ?? 0]?.name ?? ''}”: {marker.words}{#if marker.file}<a
							class="kept"
							href="data:text/plain;charset=utf-8,{encodeURIComponent(marker.file)}"
							download={marker.fileName}>{marker.fileName}</a
						>{/if}
				</li>
			{/each}
		</ul>
	{/if}
</div>

<style>
	.kept {
		margin-left: var(--gap-3);
	}
	@media print {
		.arms {
			font-size: var(--type-3);
			line-height: 1.2;
		}
	}
</style>
