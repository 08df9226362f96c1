<script lang="ts">
	import Editor from './Editor.svelte';

	let { data } = $props();
</script>

<!-- Another report begins anew: what is typed belongs to the one that it was typed into. -->
{#key data.report.id}<Editor {data} />{/key}
