<script lang="ts">
	import { Button, Checkbox } from 'carbon-components-svelte';
	import { keepTyped } from '$lib/keepTyped';
	import { typedForm } from '$lib/typedForm';
	import Choice from '$lib/parts/Choice.svelte';
	import Confirm from '$lib/parts/Confirm.svelte';
	import Field from '$lib/parts/Field.svelte';
	import Notice from '$lib/parts/Notice.svelte';

	let { data } = $props();
	const { form: typed, wrong, atFields, enhance } = typedForm(() => data.form);
	/** Fields that are typed as text. */
	type TextField = Exclude<keyof typeof $typed, 'touch' | 'mobile'>;
	let isDropping = $state(false);
	let dropForm = $state<HTMLFormElement>();
	const dropWords = $derived(data.builtIn ? 'Back to how they ship' : 'Delete these conditions');
</script>

<svelte:head><title>{data.isNew ? 'New conditions' : data.name} – Zafra</title></svelte:head>

{#snippet field(name: TextField, label: string, unit = '', help = '')}
	<Field
		{name}
		label="{label}{unit ? `, ${unit}` : ''}"
		bind:value={$typed[name]}
		{help}
		wrong={$wrong(name)}
		size="sm"
		type={name === 'password' ? 'password' : 'text'}
	/>
{/snippet}
{#snippet area(name: TextField, label: string, help: string)}
	<Field rows={3} {name} {label} bind:value={$typed[name]} {help} wrong={$wrong(name)} />
{/snippet}

<div class="page">
	<form method="POST" action="?/save" novalidate use:enhance>
		<div class="page-top">
			<h1>{data.isNew ? 'New conditions' : data.name}</h1>
			<Button type="submit" size="field" data-key="r">Save the conditions</Button>
		</div>
		{#if $atFields}<Notice
				kind="error"
				title="Not saved."
				text={$atFields === 1 ? 'One field needs another look.' : `${$atFields} fields need another look.`}
			/>{/if}
		<section class="cells">
			{@render field('name', 'Name')}
			{#if data.isNew}{@render field(
					'id',
					'Key',
					'',
					'Stands in addresses and the API: small letters, digits and -'
				)}{/if}
			{@render field('summary', 'One sentence for the client')}
		</section>
		<h2>Device</h2>
		<section class="cells">
			{@render field('width', 'Viewport width', 'px')}
			{@render field('height', 'Viewport height', 'px')}
			{@render field('pixelRatio', 'Pixels per CSS pixel')}
			{@render field(
				'targetSpeed',
				'CPU speed to reach',
				'loops/ms',
				'Empty leaves the machine as it is. A speed, not a multiplier: it means the same on every machine.'
			)}
			{@render field(
				'userAgent',
				'User agent',
				'',
				'Empty for the browser’s own; {major} stands for its version.'
			)}
			<div>
				<Checkbox name="touch" bind:checked={$typed.touch} labelText="Touch screen" />
				<Checkbox name="mobile" bind:checked={$typed.mobile} labelText="Mobile layout" />
			</div>
		</section>
		<h2>Network and place</h2>
		<section class="cells">
			{@render field('roundTripMs', 'Round trip', 'ms')}
			{@render field('downKbps', 'Rate down', 'kbit/s')}
			{@render field('upKbps', 'Rate up', 'kbit/s')}
			{@render field('dnsMs', 'First look-up of a host', 'ms')}
			<Choice
				label="Place"
				name="place"
				bind:value={$typed.place}
				options={data.places.map(({ id, name, extraRoundTripMs }) => ({
					value: id,
					text: `${name}${extraRoundTripMs ? `, ${extraRoundTripMs} ms more` : ''}`
				}))}
			/>
		</section>
		<h2>Visit</h2>
		<section class="cells">
			<Choice
				label="Cache"
				name="cache"
				bind:value={$typed.cache}
				options={[
					{ value: 'first', text: 'First visit, clean profile' },
					{ value: 'repeat', text: 'Repeat visit, same profile' }
				]}
			/>
			<Choice
				label="Input"
				name="input"
				bind:value={$typed.input}
				options={[
					{ value: 'none', text: 'No interaction is simulated' },
					{ value: 'nudge', text: 'Interaction once the page has settled' }
				]}
			/>
			{@render field('quietS', 'Quiet for this long is settled', 's')}
			{@render field('capS', 'Time cap of a load', 's')}
		</section>
		<h2>Requests</h2>
		<section class="cells wide">
			{@render area(
				'block',
				'Blocked addresses',
				'One pattern a line, * stands for anything: *://chat.example.test/*'
			)}
			{@render area(
				'headers',
				'Extra headers',
				'One a line, Name: value. Sent with every request; never written into a record.'
			)}
			{@render area('cookies', 'Cookies of the page’s host', 'One a line, name: value')}
			{@render area(
				'hostMap',
				'Host mapping',
				'pattern=address:port/tlsPort, with commas between. Private addresses only where ZAFRA_HOST_MAP maps them.'
			)}
			{@render field('username', 'HTTP authentication, user')}
			{@render field('password', 'HTTP authentication, password')}
		</section>
	</form>
	{#if !data.isNew && (!data.builtIn || data.changed)}
		<form method="POST" action="?/drop" use:keepTyped bind:this={dropForm}>
			<Button kind="danger-ghost" size="small" on:click={() => (isDropping = true)}>{dropWords}…</Button>
		</form>
		<Confirm
			bind:open={isDropping}
			heading={dropWords}
			action={dropWords}
			onconfirm={() => dropForm?.requestSubmit()}
		>
			<p>Trials that were made with them save a copy of their own and stay as they are.</p>
		</Confirm>
	{/if}
</div>

<style>
	.wide {
		grid-template-columns: repeat(auto-fill, minmax(min(100%, 22rem), 1fr));
	}
</style>
