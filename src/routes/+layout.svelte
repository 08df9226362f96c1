<script lang="ts">
	import 'carbon-components-svelte/css/all.css';
	import '$lib/theme/theme.css';
	import { Button, SideNav, SideNavItems, SideNavLink, SkipToContent } from 'carbon-components-svelte';
	import { onMount } from 'svelte';
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { live } from '$lib/live.svelte';
	import Choice from '$lib/parts/Choice.svelte';
	import Hidden from '$lib/parts/Hidden.svelte';
	import LabLine from '$lib/parts/LabLine.svelte';
	import SearchBox from '$lib/parts/SearchBox.svelte';
	import Lazy from '$lib/parts/Lazy.svelte';

	let { data, children } = $props();
	const lab = $derived(live.snapshot?.lab ?? data.lab);
	let isNarrow = $state(false);
	let showKeys = $state(false);
	let clientForm: HTMLFormElement;

	const SECTIONS = [
		{ href: '/', name: 'Desk' },
		{ href: '/clients', name: 'Clients' },
		{ href: '/pages', name: 'Pages' },
		{ href: '/field', name: 'Field' },
		{ href: '/trials', name: 'Trials' },
		{ href: '/watch', name: 'Watch' },
		{ href: '/standings', name: 'Standings' },
		{ href: '/loads', name: 'Loads' },
		{ href: '/reports', name: 'Reports' },
		{ href: '/workshop', name: 'Workshop' }
	];
	const isHere = (href: string) =>
		href === '/' ? page.url.pathname === '/' : page.url.pathname.startsWith(href);
	const clients = $derived([
		{ value: '', text: 'All clients' },
		...data.clients.map(({ id, name }) => ({ value: String(id), text: name }))
	]);

	onMount(() => {
		// From here on controls answer: read by bench/self.
		performance.mark('zafra-usable');
		return live.listen();
	});

	/** Single keys, unless the analyst is typing. */
	function onKey(event: KeyboardEvent) {
		const target = event.target as HTMLElement;
		if (
			event.ctrlKey ||
			event.metaKey ||
			event.altKey ||
			target.isContentEditable ||
			target.closest('input, textarea, select, .bx--modal')
		)
			return;
		if (event.key === 'n') void goto('/trials/new');
		else if (event.key === '/') document.querySelector<HTMLElement>('[data-key="/"]')?.focus();
		else if (event.key === 'r') document.querySelector<HTMLElement>('[data-key="r"]')?.click();
		else if (event.key === '?') showKeys = true;
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

<SkipToContent href="#content">Skip to the content</SkipToContent>
<div class="frame" class:narrow={isNarrow}>
	<SideNav fixed isOpen ariaLabel="Sections" class="rail no-print">
		<div class="brand">
			<img src="/mark.svg" alt="" width="26" height="26" /><span class="wide">Zafra</span>
		</div>
		<form class="wide client" method="POST" action="/client" bind:this={clientForm}>
			<Choice
				label="Client"
				name="client"
				options={clients}
				value={String(data.clientId ?? '')}
				onchange={() => clientForm.requestSubmit()}
			/>
			<Hidden name="back" value={page.url.pathname} />
			<noscript><Button type="submit" size="small">Choose</Button></noscript>
		</form>
		<SideNavItems>
			{#each SECTIONS as section (section.href)}
				<SideNavLink href={section.href} isSelected={isHere(section.href)} title={section.name}>
					<span class="initial" aria-hidden="true">{section.name[0]}</span><span class="wide"
						>{section.name}</span
					>
				</SideNavLink>
			{/each}
		</SideNavItems>
		<Button
			class="fold"
			kind="ghost"
			size="small"
			aria-expanded={!isNarrow}
			aria-label={isNarrow ? 'Widen the rail' : 'Fold the rail'}
			on:click={() => (isNarrow = !isNarrow)}>{isNarrow ? '»' : '«'}</Button
		>
	</SideNav>
	<div class="body">
		<div class="line no-print">
			<span class="where">{page.data.where ?? ''}</span>
			<LabLine {lab} isUnreachable={live.isUnreachable} />
			<SearchBox />
			<Button kind="ghost" size="small" class="keys-button" on:click={() => (showKeys = true)}>Keys</Button>
		</div>
		<main id="content" tabindex="-1">{@render children()}</main>
	</div>
</div>
{#if live.notices.length}<Lazy load={() => import('$lib/parts/Toasts.svelte')} props={{}} />{/if}
{#if showKeys}<Lazy
		load={() => import('$lib/parts/KeyList.svelte')}
		props={{ onclose: () => (showKeys = false) }}
	/>{/if}

<style>
	.frame {
		display: grid;
		grid-template-columns: 200px minmax(0, 1fr);
		min-height: 100vh;
	}
	.frame.narrow {
		grid-template-columns: 52px minmax(0, 1fr);
	}
	.brand {
		display: flex;
		gap: 0.55rem;
		align-items: center;
		font: 600 1.25rem var(--serif);
		color: var(--ink);
		padding: 0.9rem 0.7rem 0.4rem;
	}
	.client {
		padding: 0 0.7rem 0.6rem;
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
	.line {
		display: flex;
		gap: 1rem;
		align-items: center;
		border-bottom: 1px solid var(--rule);
		padding: 0.15rem 1.6rem;
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
	main {
		padding: 1.2rem 1.6rem 4rem;
		outline: none;
	}
	@media (max-width: 720px) {
		.frame,
		.frame.narrow {
			grid-template-columns: minmax(0, 1fr);
			align-content: start;
		}
		.line {
			flex-wrap: wrap;
			padding: 0.35rem 0.8rem;
			position: static;
		}
		.client {
			flex: 1;
			padding: 0.3rem 0.7rem;
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
