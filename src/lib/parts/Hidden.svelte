<script lang="ts">
	/** A value that goes with a form and is not typed. */
	let { name, value }: { name: string; value: string | number } = $props();
</script>

<input type="hidden" {name} {value} />
