<script lang="ts">
	import 'carbon-components-svelte/css/all.css';
	import '$lib/theme/theme.css';
	import { onMount } from 'svelte';
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { formatWait } from '$core/wording/format';
	import { live } from '$lib/live.svelte';
	import KeyList from '$lib/parts/KeyList.svelte';

	let { data, children } = $props();
	const lab = $derived(live.snapshot?.lab ?? data.lab);
	let narrow = $state(false);
	let showKeys = $state(false);

	const SECTIONS = [
		{ href: '/', name: 'Desk' },
		{ href: '/trials', name: 'Trials' },
		{ href: '/loads', name: 'Loads' },
		{ href: '/workshop', name: 'Workshop' }
	];
	const here = (href: string) =>
		href === '/' ? page.url.pathname === '/' : page.url.pathname.startsWith(href);

	onMount(() => live.listen());

	/** Single keys, unless the analyst is typing. */
	function onKey(event: KeyboardEvent) {
		const target = event.target as HTMLElement;
		if (event.ctrlKey || event.metaKey || event.altKey || target.closest('input, textarea, select')) return;
		if (event.key === 'n') void goto('/trials/new');
		else if (event.key === '/') document.querySelector<HTMLElement>('[data-key="/"]')?.focus();
		else if (event.key === 'r') document.querySelector<HTMLElement>('[data-key="r"]')?.click();
		else if (event.key === '?') showKeys = !showKeys;
		else if (event.key === 'j' || event.key === 'k') step(event.key === 'j' ? 1 : -1);
		else return;
		event.preventDefault();
	}

	/** Move the focus along the links of a list's rows. */
	function step(by: number) {
		const rows = [...document.querySelectorAll<HTMLElement>('[data-row-link]')];
		const at = rows.indexOf(document.activeElement as HTMLElement);
		rows[at < 0 ? (by > 0 ? 0 : rows.length - 1) : Math.max(0, Math.min(rows.length - 1, at + by))]?.focus();
	}
</script>

<svelte:window onkeydown={onKey} />

<a class="skip" href="#content">Skip to the content</a>
<div class="frame" class:narrow>
	<nav class="rail no-print" aria-label="Sections">
		<div class="brand">
			<img src="/mark.svg" alt="" width="26" height="26" /><span class="wide">Zafra</span>
		</div>
		<form class="wide" method="POST" action="/client">
			<label for="client">Client</label>
			<select id="client" name="client" onchange={(event) => event.currentTarget.form?.requestSubmit()}>
				<option value="" selected={data.clientId === null}>All clients</option>
				{#each data.clients as client (client.id)}
					<option value={client.id} selected={client.id === data.clientId}>{client.name}</option>
				{/each}
			</select>
			<input type="hidden" name="back" value={page.url.pathname} />
			<noscript><button>Choose</button></noscript>
		</form>
		<ul>
			{#each SECTIONS as section (section.href)}
				<li>
					<a href={section.href} aria-current={here(section.href) ? 'page' : undefined} title={section.name}>
						<span class="initial" aria-hidden="true">{section.name[0]}</span><span class="wide"
							>{section.name}</span
						>
					</a>
				</li>
			{/each}
		</ul>
		<button
			class="fold"
			onclick={() => (narrow = !narrow)}
			aria-expanded={!narrow}
			aria-label={narrow ? 'Widen the rail' : 'Fold the rail'}
		>
			{narrow ? '»' : '«'}
		</button>
	</nav>
	<div class="body">
		<div class="line no-print" role="status" aria-label="The lab">
			<span class="where">{page.data.where ?? ''}</span>
			{#if lab.problem}
				<span class="trouble">The lab cannot load pages. {lab.problem}</span>
			{:else if lab.state === 'busy' && lab.trialId}
				<a href="/trials/{lab.trialId}"
					>Loading: {lab.doing}{lab.timeLeftMs ? `; ${formatWait(lab.timeLeftMs)} left` : ''}</a
				>
			{:else if lab.state === 'busy'}
				<a href="/loads">Loading: {lab.doing}</a>
			{:else if lab.state === 'off'}
				<span class="trouble">The lab is off: trials wait in the queue.</span>
			{:else}
				<span class="muted">The lab is free</span>
			{/if}
			<button class="keys" onclick={() => (showKeys = true)}>Keys</button>
		</div>
		<main id="content" tabindex="-1">{@render children()}</main>
	</div>
</div>
{#if showKeys}<KeyList close={() => (showKeys = false)} />{/if}

<style>
	.skip {
		position: absolute;
		left: -999px;
		top: 0;
		background: var(--panel);
		padding: 0.5rem;
		z-index: 10;
	}
	.skip:focus {
		left: 0;
	}
	.frame {
		display: grid;
		grid-template-columns: 200px minmax(0, 1fr);
		min-height: 100vh;
	}
	.frame.narrow {
		grid-template-columns: 52px minmax(0, 1fr);
	}
	.rail {
		background: var(--wash);
		border-right: 1px solid var(--rule);
		padding: 0.9rem 0.7rem;
		display: flex;
		flex-direction: column;
		gap: 1rem;
		position: sticky;
		top: 0;
		height: 100vh;
	}
	.brand {
		display: flex;
		gap: 0.55rem;
		align-items: center;
		font: 600 1.25rem var(--serif);
	}
	.rail label {
		display: block;
		font-size: 0.8rem;
		color: var(--muted);
	}
	.rail select {
		width: 100%;
		padding: 0.35rem;
		background: var(--panel);
		color: var(--ink);
		border: 1px solid var(--rule);
	}
	.rail ul {
		list-style: none;
		margin: 0;
		padding: 0;
	}
	.rail li a {
		display: flex;
		gap: 0.5rem;
		padding: 0.4rem 0.5rem;
		color: var(--ink);
		text-decoration: none;
		border-left: 3px solid transparent;
	}
	.rail li a:hover {
		background: var(--panel);
	}
	.rail li a[aria-current] {
		border-left-color: var(--action);
		background: var(--panel);
		font-weight: 600;
	}
	.initial {
		display: none;
	}
	.narrow .wide {
		display: none;
	}
	.narrow .initial {
		display: inline;
	}
	.fold {
		margin-top: auto;
		align-self: flex-start;
		background: none;
		border: 1px solid var(--rule);
		color: var(--muted);
		cursor: pointer;
		padding: 0.15rem 0.55rem;
	}
	.line {
		display: flex;
		gap: 1rem;
		align-items: baseline;
		justify-content: space-between;
		border-bottom: 1px solid var(--rule);
		padding: 0.35rem 1.6rem;
		font-size: 0.88rem;
		background: var(--paper);
		position: sticky;
		top: 0;
		z-index: 3;
	}
	.where {
		color: var(--muted);
		flex: 1;
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	.trouble {
		color: var(--worse);
	}
	.keys {
		background: none;
		border: 0;
		color: var(--muted);
		cursor: pointer;
		text-decoration: underline;
		padding: 0;
	}
	main {
		padding: 1.4rem 1.6rem 4rem;
		outline: none;
	}
	@media (max-width: 720px) {
		.frame,
		.frame.narrow {
			grid-template-columns: minmax(0, 1fr);
		}
		.rail {
			position: static;
			height: auto;
			flex-flow: row wrap;
			align-items: center;
			border-right: 0;
			border-bottom: 1px solid var(--rule);
			padding: 0.5rem 0.8rem;
			gap: 0.6rem;
		}
		.rail ul {
			display: flex;
			width: 100%;
		}
		.rail form {
			flex: 1;
			display: flex;
			gap: 0.4rem;
			align-items: center;
		}
		.fold {
			display: none;
		}
		.line {
			flex-wrap: wrap;
			padding: 0.35rem 0.8rem;
			position: static;
		}
		main {
			padding: 1rem 0.8rem 3rem;
		}
	}
	@media print {
		.frame {
			display: block;
		}
		main {
			padding: 0;
		}
	}
</style>
