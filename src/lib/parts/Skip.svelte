<script lang="ts">
	/** The first thing that the tab key reaches: past what stands on every screen. */
	import { SkipToContent } from 'carbon-components-svelte';
</script>

<SkipToContent href="#content">Skip to the content</SkipToContent>
