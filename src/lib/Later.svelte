<script lang="ts" generics="Props extends Record<string, unknown>">
	/**
	 * A part of a page that comes as finished HTML, and whose controls are taken over when somebody turns to it, or when
	 * what it shows changes: a screen of many controls is usable at once, and not after the last of them is prepared.
	 * Its links work before. What is given to it must stay the same object while it says the same.
	 */
	import { flushSync, getAllContexts, hydrate, mount, onMount, unmount, type Component } from 'svelte';
	import { render } from 'svelte/server';
	import { afterPaint } from './afterPaint';

	interface LaterProps {
		of: Component<Props>;
		props: Props;
		/** At once, or from now on: the browser knows something that the server did not. */
		awake?: boolean;
	}
	let { of: Part, props, awake = false }: LaterProps = $props();
	// svelte-ignore state_referenced_locally
	let given = $state.raw<Props>({ ...props });
	/** What the part reads: always what was given last. */
	const own = {} as Props;
	// svelte-ignore state_referenced_locally
	for (const key of Object.keys(given))
		Object.defineProperty(own, key, { get: () => given[key], enumerable: true });
	const context = getAllContexts();
	/** One element, so that the framework finds its end; in the browser anything that is not empty stands for it. */
	// svelte-ignore state_referenced_locally
	const html = import.meta.env.SSR
		? `<div class="later" role="none">${render(Part, { props, context }).body}</div>`
		: ' ';
	let host: HTMLElement;
	let part: Record<string, unknown> | null = null;
	const SIGNS = ['pointerover', 'pointerdown', 'focusin', 'keydown', 'click', 'input', 'change'] as const;

	function wake(): void {
		for (const sign of SIGNS) host.removeEventListener(sign, wakeFor, true);
		part ??= hydrate(Part, { target: host.firstElementChild!, props: own, context });
	}
	/** A pointer that comes near, or a press: what it shows first must not wait for all that is prepared. */
	let isWaking = false;
	function wakeSoon(then: () => void = () => undefined): void {
		isWaking = true;
		afterPaint(() => {
			if (!host.isConnected) return;
			wake();
			flushSync();
			then();
		});
	}
	/** What was chosen in a control of the page as it came is kept, and a button that was pressed is pressed then. */
	function wakeFor(event: Event): void {
		const target = event.target as Element;
		const button = target.closest<HTMLButtonElement>('button:not(a *)');
		if (button && event.type === 'click') {
			event.preventDefault();
			event.stopImmediatePropagation();
			return wakeSoon(() => button.click());
		}
		if (event.type.startsWith('pointer') || (button && /^(focusin|keydown)$/.test(event.type))) {
			if (!isWaking) wakeSoon();
			return;
		}
		const chosen = target instanceof HTMLSelectElement ? target.value : null;
		wake();
		// Its listeners stand before the event reaches them.
		flushSync();
		if (chosen !== null) (target as HTMLSelectElement).value = chosen;
	}

	$effect(() => {
		if (awake && part === null && host.firstElementChild) wake();
	});
	$effect(() => {
		const next = { ...props };
		if (Object.keys(next).every((key) => next[key] === given[key])) return;
		// As it came, then as it is: what the server made must fit what takes it over.
		if (part === null) wake();
		given = next;
	});
	onMount(() => {
		if (part) return () => void (part && unmount(part));
		if (!host.firstElementChild) part = mount(Part, { target: host, props: own, context });
		else if (Number(document.documentElement.dataset.offset) !== new Date().getTimezoneOffset()) wake();
		else for (const sign of SIGNS) host.addEventListener(sign, wakeFor, true);
		return () => void (part && unmount(part));
	});
</script>

<!-- eslint-disable-next-line svelte/no-at-html-tags -- made by the server from this same part -->
<div class="later" role="none" bind:this={host}>{@html html}</div>

<style>
	/* The part stands as if there were nothing around it. */
	div,
	div > :global(.later) {
		display: contents;
	}
</style>
