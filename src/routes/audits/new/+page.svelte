<script lang="ts">
	import { Button, Checkbox, NumberInput } from 'carbon-components-svelte';
	import { formatWait } from '$core/wording/format';
	import Field from '$lib/parts/Field.svelte';
	import Hidden from '$lib/parts/Hidden.svelte';
	import Notice from '$lib/parts/Notice.svelte';
	import { typedForm } from '$lib/typedForm';

	let { data } = $props();
	const { form: typed, wrong, atFields, enhance } = typedForm(() => data.form);
	const typedCount = $derived($typed.urls.split('\n').filter((line) => line.trim()).length);
	const pageCount = $derived($typed.pages.length + typedCount);
	const loads = $derived(pageCount * $typed.conditions.length * ($typed.loads ?? 0));
	const pathOf = (url: string) => url.replace(/^https?:\/\//, '');
</script>

<svelte:head><title>New audit – Zafra</title></svelte:head>

<form method="POST" novalidate use:enhance class="page">
	<div class="page-top">
		<h1>New audit</h1>
		<div class="buttons"><Button type="submit" size="field" data-key="r">Start the audit</Button></div>
	</div>
	{#if $atFields}<Notice
			kind="error"
			title="The audit was not started."
			text="One field needs another look."
		/>{/if}
	{#if $wrong('pages')}<p class="wrong" role="alert">{$wrong('pages')}</p>{/if}
	<Hidden name="clientId" value={$typed.clientId} />
	<section>
		<h2>Pages</h2>
		{#if data.pages.length}
			<p class="muted small">
				The sample of {data.client}: one of each type, and those that carry the traffic.
			</p>
			<div class="cells" style:--cell="18rem">
				{#each data.pages as page (page.id)}<Checkbox
						name="pages"
						value={String(page.id)}
						labelText="{pathOf(page.url)}{page.type ? `, ${page.type}` : ''}{page.role === 'own'
							? ''
							: ` (${page.site})`}"
						bind:group={$typed.pages}
					/>{/each}
			</div>
		{:else if data.client}<p class="muted">
				{data.client} has no sample yet. <a href="/pages">Choose its pages</a>, or give addresses.
			</p>{/if}
		<Field
			rows={3}
			label="Other addresses, one a line"
			name="urls"
			placeholder="https://"
			bind:value={$typed.urls}
			wrong={$wrong('urls')}
		/>
	</section>
	<section>
		<h2>Conditions</h2>
		{#if $wrong('conditions')}<p class="wrong" role="alert">{$wrong('conditions')}</p>{/if}
		<div class="row">
			{#each data.conditions as { id, name } (id)}<Checkbox
					name="conditions"
					value={id}
					labelText={name}
					bind:group={$typed.conditions}
				/>{/each}
		</div>
		<div class="loads">
			<NumberInput
				name="loads"
				labelText="Loads of each page and device"
				size="sm"
				min={1}
				max={9}
				helperText="Three give a level with its range; a finding is gone when three good loads no longer show it."
				bind:value={$typed.loads}
				invalid={$wrong('loads') !== ''}
				invalidText={$wrong('loads')}
			/>
		</div>
		<p class="figures">
			{pageCount}
			{pageCount === 1 ? 'page' : 'pages'}, {loads} loads{loads
				? `, about ${formatWait(loads * data.loadMs)} of lab time`
				: ''}.
		</p>
	</section>
</form>

<style>
	section {
		margin-bottom: var(--gap-6);
	}
	.row {
		display: flex;
		flex-wrap: wrap;
		gap: var(--gap-6);
	}
	.loads {
		max-width: 22rem;
		margin: var(--gap-4) 0;
	}
</style>
