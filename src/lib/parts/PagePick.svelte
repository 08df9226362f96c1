<script lang="ts">
	/** A page as the lab saw it: an element is picked on its picture, a check that was tried is taken over. */
	import { Button, InlineLoading, Tag } from 'carbon-components-svelte';
	import { onDestroy } from 'svelte';
	import type { ReadyKind } from '$core/load/journey/survey';
	import { wordsOfStep, type Step } from '$core/load/journey/steps';
	import type { SurveyView } from '$lib/server/rooms/loads/surveyView';
	import Choice from './Choice.svelte';
	import Notice from './Notice.svelte';
	import { lookAtPage } from './pagePick';

	interface Props {
		/** Of the page that is looked at. */
		url: string;
		take: (steps: readonly Step[]) => void;
		close: () => void;
	}
	let { url, take, close }: Props = $props();
	const KINDS: Record<ReadyKind, string> = {
		menu: 'Menu or part opens',
		search: 'Search answers',
		form: 'Form can be sent',
		basket: 'Basket counts',
		video: 'Video plays',
		language: 'Language switches'
	};
	const DEVICES = [
		{ value: 'phone', text: 'on a phone' },
		{ value: 'desktop', text: 'on a desktop' }
	];
	let device = $state('phone');
	let seen = $state<SurveyView | null>(null);
	let problem = $state('');
	let isAsking = $state(false);
	let picked = $state<SurveyView['elements'][number] | null>(null);
	let taken = $state<number[]>([]);
	const ending = new AbortController();
	onDestroy(() => ending.abort());

	async function look() {
		isAsking = true;
		problem = '';
		seen = picked = null;
		taken = [];
		try {
			seen = await lookAtPage(url, device, ending.signal);
			problem = seen.problem;
		} catch (error) {
			if (!ending.signal.aborted) problem = (error as Error).message;
		}
		isAsking = false;
	}
	/** Small ones lie above those that hold them. */
	const elements = $derived(
		(seen?.elements ?? []).toSorted((a, b) => b.box.width * b.box.height - a.box.width * a.box.height)
	);
	const share = (part: number, whole: number) => `${(100 * part) / (whole || 1)}%`;
	const doWith = (step: Step) => {
		take([step]);
		picked = null;
	};
	const matches = (count: number) =>
		count === 1 ? 'names this element alone' : count ? `names ${count} elements` : 'names nothing';
</script>

<section class="panel pick" aria-label="The page as the lab sees it">
	<div class="top">
		<Choice label="Look at the page" options={DEVICES} bind:value={device} />
		<Button size="small" disabled={isAsking || !url.trim()} on:click={look}
			>{seen ? 'Look again' : 'Open it in the lab'}</Button
		>
		<Button kind="ghost" size="small" on:click={close}>Close</Button>
	</div>
	{#if !url.trim()}<p class="muted small">Give the page’s address first.</p>{/if}
	{#if isAsking}<InlineLoading description="The lab opens the page and tries what its markup suggests …" />{/if}
	{#if problem}<Notice kind="error" title="The page could not be looked at." text={problem} />{/if}
	{#if seen && !problem}
		<div class="sides">
			<div class="checks">
				<h4>Ready checks</h4>
				{#if !seen.checks.length}<p class="muted small">
						The markup suggests none: no menu, search, form, basket, video or language.
					</p>{/if}
				<ul class="plain">
					{#each seen.checks as check, i (i)}
						<li>
							{#if check.hasPicture}<img
									src="/api/loads/{seen.load}/survey/checks/{i}"
									alt="The page after “{check.label}”"
									loading="lazy"
								/>{/if}
							<div>
								<b>{KINDS[check.kind]}</b> <span class="muted small">{check.label}</span>
								<Tag size="sm" type={check.status === 'ok' ? 'teal' : 'gray'}
									>{check.status === 'ok' ? 'passed' : 'refused'}</Tag
								>
								{#if check.message}<p class="muted small">{check.message}</p>
								{:else}
									<p class="muted small">{check.steps.map((step) => wordsOfStep(step as Step)).join('; ')}</p>
									<Button
										kind="tertiary"
										size="small"
										disabled={taken.includes(i)}
										on:click={() => {
											take(check.steps as Step[]);
											taken = [...taken, i];
										}}
										>{taken.includes(i) ? 'Added' : 'Use it'}<span class="visually-hidden"
											>, {KINDS[check.kind]}</span
										></Button
									>
								{/if}
							</div>
						</li>
					{/each}
				</ul>
			</div>
			<div>
				<h4>Or pick an element</h4>
				{#if picked}
					{@const { selector } = picked}
					<p class="small">
						<b>{picked.label}</b> <code>{selector}</code>
						<span class={picked.matches === 1 ? 'muted' : 'wrong'}>{matches(picked.matches)}</span>
					</p>
					<div class="buttons">
						<Button kind="tertiary" size="small" on:click={() => doWith({ click: selector })}>Click it</Button>
						{#if ['input', 'textarea', 'searchbox', 'textbox'].includes(picked.kind)}<Button
								kind="tertiary"
								size="small"
								on:click={() => doWith({ type: 'Words', into: selector })}>Type into it</Button
							>{/if}
						{#if picked.kind === 'form'}<Button
								kind="tertiary"
								size="small"
								on:click={() => doWith({ trySend: selector })}>Try to send it</Button
							>{/if}
						<Button kind="tertiary" size="small" on:click={() => doWith({ expect: { selector } })}
							>Expect it</Button
						>
						<Button kind="tertiary" size="small" on:click={() => doWith({ wait: { selector } })}
							>Wait for it</Button
						>
					</div>
				{:else}<p class="muted small">Press what a step is about; its selector is proposed.</p>{/if}
				<div class="picture">
					<img
						src="/api/loads/{seen.load}/survey/picture"
						alt="The page {device === 'phone' ? 'on a phone' : 'on a desktop'}"
					/>
					{#each elements as element (element.selector)}
						<button
							type="button"
							class:picked={picked === element}
							aria-label="{element.label}, {element.kind}"
							title="{element.label}: {element.selector}"
							style:left={share(element.box.x, seen.width)}
							style:top={share(element.box.y, seen.height)}
							style:width={share(element.box.width, seen.width)}
							style:height={share(element.box.height, seen.height)}
							onclick={() => (picked = element)}
						></button>
					{/each}
				</div>
			</div>
		</div>
	{/if}
</section>

<style>
	.pick {
		margin: var(--gap-4) 0;
	}
	.top {
		display: flex;
		flex-wrap: wrap;
		gap: var(--gap-4);
		align-items: end;
	}
	.sides {
		display: grid;
		grid-template-columns: minmax(14rem, 1fr) minmax(0, 1.4fr);
		gap: var(--gap-6);
		margin-top: var(--gap-4);
	}
	h4 {
		margin: 0 0 var(--gap-3);
	}
	li {
		display: grid;
		grid-template-columns: 5.5rem 1fr;
		gap: var(--gap-4);
		margin-bottom: var(--gap-4);
	}
	li img {
		width: 100%;
		border: 1px solid var(--rule);
	}
	li p {
		margin: 0 0 var(--gap-2);
		overflow-wrap: anywhere;
	}
	.picture {
		position: relative;
		max-height: 34rem;
		overflow: auto;
		border: 1px solid var(--rule);
	}
	.picture img {
		display: block;
		width: 100%;
	}
	.picture button {
		position: absolute;
		border: 1px dashed transparent;
		background: none;
		padding: 0;
		cursor: pointer;
	}
	.picture button:hover,
	.picture button:focus-visible,
	.picture .picked {
		border-color: var(--action);
		background: color-mix(in srgb, var(--action) 15%, transparent);
	}
	@media (max-width: 820px) {
		.sides {
			grid-template-columns: minmax(0, 1fr);
		}
	}
</style>
