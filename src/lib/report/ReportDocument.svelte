<svelte:options css="injected" />

<script lang="ts">
	/** A report as the client reads it: on paper colours of its own, whatever the theme around it. */
	import type { BlockView, ReportView } from '$core/report/view';
	import Answers from './Answers.svelte';
	import Boards from './Boards.svelte';
	import Dots from './Dots.svelte';
	import Frames from './Frames.svelte';
	import Lines from './Lines.svelte';
	import Outside from './Outside.svelte';
	import Recommendations from './Recommendations.svelte';
	import Scores from './Scores.svelte';
	import Tables from './Tables.svelte';
	import Words from './Words.svelte';

	interface Props {
		report: ReportView;
		/** Address of a picture by its key. */
		pictureOf: (key: string) => string;
		/** Whose signature its bundle has; empty without. */
		signed?: string;
	}
	let { report, pictureOf, signed = '' }: Props = $props();
	const { labels, agency } = $derived(report);
	const accent = $derived(agency.accent || '#1f6f54');
	/** A short report needs no list of its parts. */
	const FEWEST_FOR_CONTENTS = 5;
	const isListed = $derived(report.blocks.length >= FEWEST_FOR_CONTENTS);
	/** A text block that nobody gave a heading begins with its words. */
	const hasHeading = (block: BlockView) => block.heading !== '';
</script>

<article class="report" lang={report.language} style:--accent={accent}>
	<header>
		<p class="agency">
			{#if agency.logo}<img
					src={pictureOf(agency.logo)}
					alt={agency.name}
					height="40"
				/>{:else}{agency.name}{/if}
		</p>
		<h1 dir="auto">{report.title}</h1>
		<p class="stamp" dir="auto">
			{[labels.preparedFor, labels.by, labels.stamp].filter(Boolean).join(' · ')}
		</p>
	</header>
	{#if isListed}
		<nav aria-label={labels.contents}>
			<ol>
				{#each report.blocks as block (block.id)}<li><a href="#{block.id}">{block.heading}</a></li>{/each}
			</ol>
		</nav>
	{/if}
	{#each report.blocks as block (block.id)}
		<section id={block.id} aria-label={block.heading}>
			{#if hasHeading(block)}<h2 dir="auto">{block.heading}</h2>{/if}
			{#if block.words.length}<Words parts={block.words} />{/if}
			{#if block.body.kind === 'answer'}<Answers body={block.body} />
			{:else if block.body.kind === 'board'}<Boards body={block.body} {labels} />
			{:else if block.body.kind === 'score'}<Scores body={block.body} />
			{:else if block.body.kind === 'estimation'}<Dots body={block.body} language={report.language} />
			{:else if block.body.kind === 'frames'}<Frames body={block.body} {pictureOf} />
			{:else if block.body.kind === 'lines'}<Lines body={block.body} />
			{:else if block.body.kind === 'tables'}<Tables body={block.body} />
			{:else if block.body.kind === 'recommendations'}<Recommendations body={block.body} />
			{:else if block.body.kind === 'outside'}<Outside body={block.body} />
			{:else if block.body.kind === 'missing'}<p class="missing">{block.body.why}</p>{/if}
		</section>
	{/each}
	{#if agency.standing || agency.contact || signed}
		<footer>
			{#if agency.standing}<p dir="auto">{agency.standing}</p>{/if}
			{#if agency.contact}<p dir="auto">{agency.contact}</p>{/if}
			{#if signed}<p class="key">{signed}</p>{/if}
		</footer>
	{/if}
</article>

<style>
	.report {
		--ink: #1d2b26;
		--muted: #56655e;
		--rule: #d9d5c9;
		--rule-strong: #a9a596;
		--better: #0b6e8a;
		--worse: #8a2e4f;
		--same: #6b6b6b;
		--margin-band: #efe9d8;
		--arm-1: #c4621a;
		--arm-2: #5a4fa2;
		--arm-3: #4c7a1e;
		--arm-4: #7a6a4f;
		--arm-5: #2f5d9b;
		--arm-6: #b07aa1;
		--arm-7: #a08400;
		color-scheme: light;
		color: var(--ink);
		background: #fff;
		font:
			400 1rem/1.5 'Source Sans',
			system-ui,
			sans-serif;
		font-variant-numeric: tabular-nums;
		max-width: 50rem;
		margin: 0 auto;
		padding: 2.2rem clamp(1rem, 5vw, 3rem) 3rem;
		overflow-wrap: break-word;
	}
	.report :global(*) {
		box-sizing: border-box;
	}
	h1,
	h2 {
		font-family: 'Source Serif', Georgia, serif;
		font-weight: 600;
		line-height: 1.2;
		color: var(--ink);
		text-wrap: balance;
	}
	h1 {
		font-size: clamp(1.6rem, 5vw, 2.1rem);
		margin: 0.4rem 0 0.3rem;
		max-width: none;
	}
	h2 {
		font-size: 1.3rem;
		margin: 0 0 0.5rem;
		padding-top: 0.7rem;
		border-top: 2px solid var(--accent);
	}
	.agency {
		margin: 0;
		font-weight: 600;
		color: var(--accent);
		min-height: 1.5rem;
	}
	.agency img {
		height: 40px;
		width: auto;
		max-width: 100%;
		object-fit: contain;
	}
	.stamp,
	footer {
		color: var(--muted);
		font-size: 0.9rem;
		margin: 0;
	}
	footer {
		margin-top: 2.5rem;
		border-top: 1px solid var(--rule);
		padding-top: 0.6rem;
	}
	footer p {
		margin: 0.2rem 0;
	}
	nav {
		margin-top: 1rem;
		font-size: 0.92rem;
	}
	nav ol {
		margin: 0;
		padding: 0;
		list-style: none;
		display: flex;
		flex-wrap: wrap;
		gap: 0.1rem 1.1rem;
	}
	nav a {
		color: var(--accent);
		display: inline-block;
		padding: 0.15rem 0;
	}
	section {
		margin-top: 1.9rem;
		break-inside: auto;
	}
	.missing {
		color: var(--muted);
		border-left: 3px solid var(--rule-strong);
		padding-left: 0.7rem;
		margin: 0.3rem 0;
	}
	@media print {
		.report {
			max-width: none;
			padding: 0;
		}
		nav {
			display: none;
		}
		h2 {
			break-after: avoid;
		}
		.report :global(h3),
		.report :global(caption) {
			break-after: avoid;
		}
		.report :global(figure),
		.report :global(tr),
		.report :global(li),
		.report :global(.together) {
			break-inside: avoid;
		}
		.report :global(p) {
			orphans: 3;
			widows: 3;
		}
	}
</style>
