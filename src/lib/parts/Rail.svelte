<script lang="ts">
	/** The sections, and whose they are. */
	import { Button, SideNav, SideNavItems, SideNavLink } from 'carbon-components-svelte';
	import Choice from './Choice.svelte';
	import Hidden from './Hidden.svelte';

	interface Props {
		clients: readonly { id: number; name: string }[];
		clientId: number | null;
		/** Where we are. */
		path: string;
		isNarrow: boolean;
		onfold: () => void;
	}
	let { clients, clientId, path, isNarrow, onfold }: Props = $props();
	let clientForm: HTMLFormElement;
	const SECTIONS = [
		{ href: '/', name: 'Desk' },
		{ href: '/clients', name: 'Clients' },
		{ href: '/pages', name: 'Pages' },
		{ href: '/field', name: 'Field' },
		{ href: '/audits', name: 'Audits' },
		{ href: '/worklist', name: 'Worklist' },
		{ href: '/trials', name: 'Trials' },
		{ href: '/watch', name: 'Watch' },
		{ href: '/standings', name: 'Standings' },
		{ href: '/loads', name: 'Loads' },
		{ href: '/reports', name: 'Reports' },
		{ href: '/workshop', name: 'Workshop' }
	];
	const isHere = (href: string) => (href === '/' ? path === '/' : path.startsWith(href));
	const options = $derived([
		{ value: '', text: 'All clients' },
		...clients.map(({ id, name }) => ({ value: String(id), text: name }))
	]);
</script>

<SideNav fixed isOpen ariaLabel="Sections" class="rail no-print">
	<div class="brand">
		<svg viewBox="0 0 32 32" width="26" height="26" aria-hidden="true"
			><rect width="32" height="32" rx="3" fill="#1f6f54" /><path
				d="M6 23h20M9 9v14M9 13h7M9 18h13"
				stroke="#faf8f3"
				stroke-width="2.6"
				fill="none"
			/></svg
		><span class="wide">Zafra</span>
	</div>
	<form class="wide client" method="POST" action="/client" bind:this={clientForm}>
		<Choice
			label="Client"
			name="client"
			{options}
			value={String(clientId ?? '')}
			onchange={() => clientForm.requestSubmit()}
		/>
		<Hidden name="back" value={path} />
		<noscript><Button type="submit" size="small">Choose</Button></noscript>
	</form>
	<SideNavItems>
		{#each SECTIONS as section (section.href)}
			<SideNavLink href={section.href} isSelected={isHere(section.href)} title={section.name}>
				<span class="initial" aria-hidden="true">{section.name[0]}</span><span class="wide">{section.name}</span
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
		on:click={onfold}>{isNarrow ? '»' : '«'}</Button
	>
</SideNav>

<style>
	.brand {
		display: flex;
		gap: var(--gap-4);
		align-items: center;
		font: 600 1.25rem var(--serif);
		color: var(--ink);
		padding: var(--gap-6) var(--gap-5) var(--gap-3);
	}
	.client {
		padding: 0 var(--gap-5) var(--gap-4);
	}
	.initial {
		display: none;
	}
	:global(.narrow) .wide {
		display: none;
	}
	:global(.narrow) .initial {
		display: inline;
	}
	@media (max-width: 720px) {
		.client {
			flex: 1;
			padding: var(--gap-3) var(--gap-5);
		}
	}
</style>
