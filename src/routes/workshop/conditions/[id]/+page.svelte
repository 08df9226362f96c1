<script lang="ts">
	import { Button } from 'carbon-components-svelte';
	import { enhance } from '$app/forms';

	let { data, form } = $props();
	const values = $derived(form?.fields ?? data.fields);
	const PATHS: Record<string, string> = {
		width: 'device.width',
		height: 'device.height',
		pixelRatio: 'device.pixelRatio',
		targetSpeed: 'device.targetSpeed',
		userAgent: 'device.userAgent',
		roundTripMs: 'network.roundTripMs',
		downKbps: 'network.downKbps',
		upKbps: 'network.upKbps',
		dnsMs: 'network.dnsMs',
		capS: 'capMs',
		quietS: 'quietMs',
		username: 'authentication',
		password: 'authentication'
	};
	const issue = (field: string) => {
		const path = PATHS[field] ?? field;
		return form?.issues.find((one) => one.path === path || one.path.startsWith(`${path}.`))?.message ?? '';
	};
</script>

<svelte:head><title>{data.isNew ? 'New conditions' : data.fields.name} – Zafra</title></svelte:head>

{#snippet field(name: keyof typeof values, label: string, unit = '', help = '')}
	<label class:wrong={issue(name)}>
		{label}{unit ? `, ${unit}` : ''}
		<input {name} value={String(values[name])} aria-invalid={issue(name) !== ''} autocomplete="off" />
		{#if issue(name)}<span class="issue">{issue(name)}</span>{:else if help}<span class="help">{help}</span
			>{/if}
	</label>
{/snippet}
{#snippet area(name: keyof typeof values, label: string, help: string)}
	<label class:wrong={issue(name)}>
		{label}
		<textarea {name} rows="3" spellcheck="false" aria-invalid={issue(name) !== ''}
			>{String(values[name])}</textarea
		>
		{#if issue(name)}<span class="issue">{issue(name)}</span>{:else}<span class="help">{help}</span>{/if}
	</label>
{/snippet}

<form
	method="POST"
	action="?/save"
	novalidate
	use:enhance={() =>
		({ update }) =>
			update({ reset: false })}
>
	<div class="top">
		<h1>{data.isNew ? 'New conditions' : data.fields.name}</h1>
		<Button type="submit" data-key="r">Save the conditions</Button>
	</div>
	{#if form?.issues.length}<p class="issue" role="alert">
			Not saved: {form.issues.length === 1 ? 'one field needs' : `${form.issues.length} fields need`} another look.
		</p>{/if}
	<section>
		<div class="grid">
			{@render field('name', 'Name')}
			{#if data.isNew}{@render field(
					'id',
					'Key',
					'',
					'Stands in addresses and the API: small letters, digits and -'
				)}{/if}
			{@render field('summary', 'One sentence for the client')}
		</div>
	</section>
	<section>
		<h2>Device</h2>
		<div class="grid">
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
			<div class="checks">
				<label><input type="checkbox" name="touch" checked={values.touch} /> Touch screen</label>
				<label><input type="checkbox" name="mobile" checked={values.mobile} /> Mobile layout</label>
			</div>
		</div>
	</section>
	<section>
		<h2>Network and place</h2>
		<div class="grid">
			{@render field('roundTripMs', 'Round trip', 'ms')}
			{@render field('downKbps', 'Rate down', 'kbit/s')}
			{@render field('upKbps', 'Rate up', 'kbit/s')}
			{@render field('dnsMs', 'First look-up of a host', 'ms')}
			<label
				>Place <select name="place" value={values.place}
					>{#each data.places as place (place.id)}<option value={place.id}
							>{place.name}{place.extraRoundTripMs ? `, ${place.extraRoundTripMs} ms more` : ''}</option
						>{/each}</select
				></label
			>
		</div>
	</section>
	<section>
		<h2>Visit</h2>
		<div class="grid">
			<label
				>Cache <select name="cache" value={values.cache}
					><option value="first">First visit, clean profile</option><option value="repeat"
						>Repeat visit, same profile</option
					></select
				></label
			>
			<label
				>Input <select name="input" value={values.input}
					><option value="none">None: nobody moves</option><option value="nudge"
						>A nudge once the page has settled</option
					></select
				></label
			>
			{@render field('quietS', 'Quiet for this long is settled', 's')}
			{@render field('capS', 'Time cap of a load', 's')}
		</div>
	</section>
	<section>
		<h2>Requests</h2>
		<div class="grid wide">
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
				'Hosts sent elsewhere',
				'pattern=address:port/tlsPort, with commas between. Private addresses only where ZAFRA_HOST_MAP maps them.'
			)}
			{@render field('username', 'HTTP authentication, user')}
			{@render field('password', 'HTTP authentication, password')}
		</div>
	</section>
</form>
{#if !data.isNew && (!data.builtIn || data.changed)}
	<form method="POST" action="?/drop">
		<Button type="submit" kind="danger-tertiary" size="small"
			>{data.builtIn ? 'Back to how they ship' : 'Delete these conditions'}</Button
		>
	</form>
{/if}

<style>
	form {
		max-width: 940px;
	}
	.top {
		display: flex;
		justify-content: space-between;
		align-items: center;
		gap: 1rem;
		flex-wrap: wrap;
		margin-bottom: 1rem;
	}
	section {
		margin-bottom: 1.6rem;
	}
	.grid {
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(min(100%, 15rem), 1fr));
		gap: 0.9rem 1.3rem;
	}
	.wide {
		grid-template-columns: repeat(auto-fill, minmax(min(100%, 22rem), 1fr));
	}
	label {
		font-size: 0.88rem;
		display: grid;
		gap: 0.15rem;
		align-content: start;
	}
	.checks {
		display: grid;
		gap: 0.4rem;
		align-content: center;
	}
	.checks label {
		display: flex;
		gap: 0.4rem;
	}
	input:not([type='checkbox']),
	select,
	textarea {
		background: var(--panel);
		color: var(--ink);
		border: 1px solid var(--rule);
		border-bottom-color: var(--muted);
		padding: 0.4rem 0.5rem;
		font-size: 0.98rem;
		width: 100%;
	}
	textarea {
		font-family: ui-monospace, monospace;
		font-size: 0.86rem;
	}
	.wrong input,
	.wrong textarea {
		border-color: var(--worse);
	}
	.issue {
		color: var(--worse);
	}
	.help {
		color: var(--muted);
		font-size: 0.82rem;
	}
</style>
