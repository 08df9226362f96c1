<script lang="ts">
	/** Words with bold, italic and lists; figures are chosen and not typed. */
	import { Button } from 'carbon-components-svelte';
	import { Editor, mergeAttributes, Node } from '@tiptap/core';
	import StarterKit from '@tiptap/starter-kit';
	import { onMount } from 'svelte';
	import type { RichText } from '$core/report/richText';
	import Choice from '$lib/parts/Choice.svelte';
	import type { FigureChoice } from '$lib/server/rooms/reports/material';

	interface Props {
		label: string;
		value: RichText;
		choices: readonly FigureChoice[];
		onchange: (words: RichText) => void;
	}
	let { label, value, choices, onchange }: Props = $props();
	let place: HTMLElement;
	let editor: Editor | null = null;
	let marks = $state({ bold: false, italic: false, list: false });
	const textOf = (ref: string) => choices.find((choice) => choice.ref === ref)?.text ?? 'figure';
	const nameOf = (ref: string) => choices.find((choice) => choice.ref === ref)?.name ?? ref;
	const options = $derived([
		{ value: '', text: 'Put in a figure …' },
		...choices.map(({ ref, name, text }) => ({ value: ref, text: `${name}: ${text}` }))
	]);

	const Figure = Node.create({
		name: 'figure',
		group: 'inline',
		inline: true,
		atom: true,
		addAttributes: () => ({ ref: { default: '' } }),
		parseHTML: () => [
			{ tag: 'span[data-ref]', getAttrs: (node) => ({ ref: (node as HTMLElement).dataset.ref ?? '' }) }
		],
		renderHTML: ({ node, HTMLAttributes }) => {
			const ref = String(node.attrs.ref);
			return [
				'span',
				mergeAttributes(HTMLAttributes, { 'data-ref': ref, title: nameOf(ref), class: 'token' }),
				textOf(ref)
			];
		},
		renderText: ({ node }) => textOf(String(node.attrs.ref))
	});
	/** Nothing but what a report can hold. */
	const KIT = StarterKit.configure({
		heading: false,
		blockquote: false,
		code: false,
		codeBlock: false,
		horizontalRule: false,
		orderedList: false,
		strike: false,
		link: false,
		underline: false,
		trailingNode: false
	});

	onMount(() => {
		editor = new Editor({
			element: place,
			extensions: [KIT, Figure],
			content: value.content?.length ? $state.snapshot(value) : '',
			editorProps: { attributes: { 'aria-label': label, role: 'textbox', 'aria-multiline': 'true' } },
			onTransaction: ({ editor: own }) => {
				marks = {
					bold: own.isActive('bold'),
					italic: own.isActive('italic'),
					list: own.isActive('bulletList')
				};
			},
			onUpdate: ({ editor: own }) => onchange(own.getJSON() as RichText)
		});
		return () => editor?.destroy();
	});
	function putIn(ref: string) {
		if (ref) editor?.chain().focus().insertContent({ type: 'figure', attrs: { ref } }).run();
	}
</script>

<div>
	<p class="label" aria-hidden="true">{label}</p>
	<div class="bar" role="group" aria-label="Form of the words">
		<Button
			kind="ghost"
			size="small"
			aria-pressed={marks.bold}
			on:click={() => editor?.chain().focus().toggleBold().run()}><b>Bold</b></Button
		>
		<Button
			kind="ghost"
			size="small"
			aria-pressed={marks.italic}
			on:click={() => editor?.chain().focus().toggleItalic().run()}><i>Italic</i></Button
		>
		<Button
			kind="ghost"
			size="small"
			aria-pressed={marks.list}
			on:click={() => editor?.chain().focus().toggleBulletList().run()}>List</Button
		>
	</div>
	<div class="words" bind:this={place}></div>
	{#if choices.length}<Choice label="Put in a figure" hideLabel {options} value="" onchange={putIn} />{/if}
</div>

<style>
	.label {
		font-size: var(--type-2);
		color: var(--muted);
		margin: 0 0 var(--gap-2);
	}
	.bar {
		display: flex;
	}
	.bar :global(.bx--btn) {
		padding: 0 var(--gap-4);
		min-height: 1.9rem;
	}
	.words :global(.tiptap) {
		background: var(--panel);
		border: 1px solid var(--rule-strong);
		min-height: 5rem;
		padding: var(--gap-3) var(--gap-4);
		margin-bottom: var(--gap-3);
	}
	.words :global(.tiptap:focus) {
		outline: 2px solid var(--focus);
	}
	.words :global(p) {
		margin: 0 0 var(--gap-3);
	}
	.words :global(ul) {
		list-style: disc;
		padding-left: var(--gap-6);
	}
	.words :global(.token) {
		background: var(--margin-band);
		padding: 0 var(--gap-2);
	}
</style>
