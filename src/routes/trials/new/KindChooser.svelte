<script lang="ts">
	/** What kind of question it is. */
	import type { TrialKind } from '$core/trial/types';

	interface Props {
		templates: readonly { id: string; kind: TrialKind; name: string; hint: string }[];
		kind: TrialKind;
		choose: (kind: TrialKind) => void;
	}
	let { templates, kind, choose }: Props = $props();
</script>

<ul class="templates">
	{#each templates as one (one.id)}
		<li>
			<button type="button" aria-pressed={kind === one.kind} onclick={() => choose(one.kind)}
				><b>{one.name}</b><span>{one.hint}</span></button
			>
		</li>
	{/each}
</ul>

<style>
	.templates {
		list-style: none;
		padding: 0;
		margin: 0 0 1rem;
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(min(100%, 13rem), 1fr));
		gap: 0.6rem;
	}
	.templates button {
		width: 100%;
		height: 100%;
		text-align: left;
		background: var(--panel);
		border: 1px solid var(--rule);
		color: var(--ink);
		padding: 0.6rem 0.7rem;
		cursor: pointer;
		font-size: 0.86rem;
		display: grid;
		gap: 0.2rem;
		align-content: start;
	}
	.templates button[aria-pressed='true'] {
		border-color: var(--action);
		box-shadow: inset 3px 0 0 var(--action);
	}
	.templates span {
		color: var(--muted);
	}
</style>
