<script lang="ts">
	import 'carbon-components-svelte/css/all.css';
	import '$lib/theme/theme.css';
	import { onMount } from 'svelte';
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { live } from '$lib/live.svelte';
	import KeysButton from '$lib/parts/KeysButton.svelte';
	import { problemOf } from '$lib/formProblem';
	import LabLine from '$lib/parts/LabLine.svelte';
	import SearchBox from '$lib/parts/SearchBox.svelte';
	import Notice from '$lib/parts/Notice.svelte';
	import Lazy from '$lib/parts/Lazy.svelte';
	import Rail from '$lib/parts/Rail.svelte';
	import Skip from '$lib/parts/Skip.svelte';

	let { data, children } = $props();
	const problem = $derived(problemOf(page.form, page.data));
	const lab = $derived(live.snapshot?.lab ?? data.lab);
	let isNarrow = $state(false);
	let showKeys = $state(false);

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

<Skip />
<div class="frame" class:narrow={isNarrow}>
	<Rail
		clients={data.clients}
		clientId={data.clientId}
		path={page.url.pathname}
		{isNarrow}
		onfold={() => (isNarrow = !isNarrow)}
	/>
	<div class="body">
		<div class="line no-print">
			<span class="where">{page.data.where ?? ''}</span>
			<LabLine {lab} isUnreachable={live.isUnreachable} />
			<SearchBox />
			<div class="keys"><KeysButton onpress={() => (showKeys = true)} /></div>
		</div>
		<main id="content" tabindex="-1">
			{#if problem}<Notice kind="error" title="This was not done." text={problem} />{/if}
			{@render children()}
		</main>
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
	.line {
		display: flex;
		gap: var(--gap-6);
		align-items: center;
		border-bottom: 1px solid var(--rule);
		padding: var(--gap-2) var(--gap-7);
		font-size: var(--type-3);
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
		padding: var(--gap-7) var(--gap-7) 4rem;
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
			gap: var(--gap-3) var(--gap-6);
			padding: var(--gap-3) var(--gap-5);
			position: static;
		}
		/* The heading says it; keys are for those who have some. */
		.where,
		.keys {
			display: none;
		}
		.line > :global(.lab-line) {
			flex: 0 1 auto;
		}
		.line > :global(div) {
			flex: 1 1 9rem;
		}
		main {
			padding: var(--gap-6) var(--gap-5) 3rem;
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
