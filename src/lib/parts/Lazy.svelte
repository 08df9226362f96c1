<script lang="ts" generics="Props extends Record<string, unknown>">
	/** A component that is fetched when it is first shown. */
	import type { Component } from 'svelte';

	interface LazyProps {
		load: () => Promise<{ default: Component<Props> }>;
		props: Props;
	}
	let { load, props }: LazyProps = $props();
</script>

{#await load() then { default: Shown }}
	<Shown {...props} />
{:catch}
	<p class="wrong" role="alert">This part could not be fetched: the server does not answer. Open it again.</p>
{/await}
