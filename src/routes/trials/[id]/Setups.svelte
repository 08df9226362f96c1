<script lang="ts">
	import { hasPages } from '$core/trial/kinds';
	/** Arms with what they run on: the differences, clashes, features; editable. */
	import { enhance } from '$app/forms';
	import { Button } from 'carbon-components-svelte';
	import Scroller from '$lib/parts/Scroller.svelte';
	import SetupEditor from '$lib/parts/SetupEditor.svelte';
	import { exclusiveClashes, monthlyCostOf, NO_SETUP, setupDifferences } from '$core/trial/setup';
	import type { TrialArm, TrialKind } from '$core/trial/types';

	interface Props {
		arms: TrialArm[];
		kind: TrialKind;
		colourOf: (arm: number) => string;
	}
	let { arms, kind, colourOf }: Props = $props();
	const baselineOf = (arm: TrialArm) =>
		arms.find((one) => one.baseline && (!hasPages(kind) || one.page === arm.page))!;
	const others = $derived(arms.filter((arm) => !arm.baseline && !arm.reference));
	const features = $derived([...new Set(arms.flatMap((arm) => Object.keys(arm.setup?.features ?? {})))].sort());
	const known = $derived(arms.some((arm) => arm.setup));
	const cost = (arm: TrialArm) => {
		const sum = arm.setup ? monthlyCostOf(arm.setup) : null;
		return sum === null ? '' : `${sum} a month`;
	};
</script>

<Scroller label="Table of arms">
	<table class="ledger">
		<thead
			><tr
				><th scope="col">Name</th>{#if hasPages(kind)}<th scope="col">Page</th>{/if}<th scope="col">Address</th
				><th scope="col">Part in the trial</th><th scope="col">Runs on</th></tr
			></thead
		>
		<tbody>
			{#each arms as arm (arm.id)}
				<tr>
					<td><i class="swatch" style:background={colourOf(arm.id)}></i>{arm.name}</td>
					{#if hasPages(kind)}<td>{arm.page}</td>{/if}
					<td class="address"><a href={arm.url} rel="external noreferrer">{arm.url}</a></td>
					<td
						>{arm.baseline
							? 'Baseline'
							: arm.reference
								? 'Reference page, loaded in every stage'
								: 'Compared with the baseline'}</td
					>
					<td>
						{arm.setup?.components
							.map(
								(one) =>
									`${one.name}${one.version ? ` ${one.version}` : ''}${one.tier === 'unknown' ? '' : `, ${one.tier}`}`
							)
							.join('; ') || '–'}
						{#if cost(arm)}<div class="muted">{cost(arm)}</div>{/if}
						{#each arm.setup ? exclusiveClashes(arm.setup) : [] as clash (clash)}<div class="clash">
								{clash}
							</div>{/each}
					</td>
				</tr>
			{/each}
		</tbody>
	</table>
</Scroller>
{#if known}
	<div class="no-print">
		{#each others as arm (arm.id)}
			{@const differences = setupDifferences(baselineOf(arm).setup ?? NO_SETUP, arm.setup ?? NO_SETUP)}
			<h3>{arm.page ? `${arm.page}: ` : ''}“{arm.name}” against “{baselineOf(arm).name}”</h3>
			{#if differences.length}
				<ul>
					{#each differences as one (one.kind + one.component)}
						<li>
							{one.component} ({one.kind}): {one.what}{#if one.fields.length}<ul>
									{#each one.fields as field (field.name)}<li>
											{field.name}: {field.before || 'not set'} → {field.after || 'not set'}
										</li>{/each}
								</ul>{/if}
						</li>
					{/each}
				</ul>
				{#if differences.length > 1}<p class="muted small">
						More than one thing differs: the answer is about all of them together.
					</p>{/if}
			{:else}<p class="muted small">The same setup.</p>{/if}
		{/each}
		{#if features.length}
			<h3>Features</h3>
			<Scroller label="Features of the arms">
				<table class="ledger">
					<thead
						><tr
							><th scope="col">Feature</th>{#each arms.filter((arm) => !arm.reference) as arm (arm.id)}<th
									scope="col">{arm.name}</th
								>{/each}</tr
						></thead
					>
					<tbody>
						{#each features as feature (feature)}
							{@const states = arms.filter((arm) => !arm.reference).map((arm) => arm.setup?.features[feature])}
							<tr class:uneven={new Set(states).size > 1}
								><th scope="row">{feature}{new Set(states).size > 1 ? ', not level' : ''}</th
								>{#each states as state, i (i)}<td>{state === undefined ? 'unknown' : state ? 'on' : 'off'}</td
									>{/each}</tr
							>
						{/each}
					</tbody>
				</table>
			</Scroller>
		{/if}
	</div>
{/if}
<details class="no-print edit">
	<summary>Write down what the arms run on</summary>
	{#each arms.filter((arm) => !arm.reference) as arm (arm.id)}
		<form
			method="POST"
			action="?/setup"
			use:enhance={() =>
				({ update }) =>
					update({ reset: false })}
		>
			<input type="hidden" name="arm" value={arm.id} />
			<SetupEditor name="setup" setup={arm.setup ?? null} label="{arm.page ? `${arm.page}, ` : ''}{arm.name}" />
			<Button type="submit" size="small" kind="tertiary">Keep for “{arm.name}”</Button>
		</form>
	{/each}
</details>

<style>
	.address {
		overflow-wrap: anywhere;
	}
	.clash {
		color: var(--worse);
	}
	.small {
		font-size: 0.88rem;
	}
	h3 {
		margin-top: 0.8rem;
	}
	ul {
		padding-left: 1.1rem;
		list-style: disc;
	}
	.uneven th,
	.uneven td {
		color: var(--worse);
	}
	th[scope='row'] {
		font-weight: 400;
	}
	.edit {
		margin-top: 0.8rem;
	}
	.edit summary {
		cursor: pointer;
		color: var(--action);
		font-size: 0.9rem;
	}
	.edit form {
		margin: 0.6rem 0 1rem;
	}
</style>
