<script lang="ts">
	/** Play, speed and moment of one film or several. */
	import { Button, Select, SelectItem, Slider } from 'carbon-components-svelte';
	import { SPEEDS, type FilmClock } from './filmClock.svelte';

	interface Props {
		clock: FilmClock;
		/** Addresses of all frames. */
		pictures: readonly string[];
	}
	let { clock, pictures }: Props = $props();
</script>

<div class="row">
	<Button size="small" on:click={() => clock.toggle(pictures)}
		>{clock.isPlaying ? 'Pause' : clock.isAtEnd ? 'Play again' : 'Play'}</Button
	>
	<Select labelText="Speed" inline size="sm" bind:selected={clock.speed}>
		{#each SPEEDS as [value, name] (value)}<SelectItem {value} text={name} />{/each}
	</Select>
</div>
<Slider
	labelText="Moment, ms"
	hideTextInput
	fullWidth
	min={0}
	max={Math.ceil(clock.endMs)}
	step={Math.max(1, Math.round(clock.endMs / 400))}
	value={Math.round(clock.at)}
	on:input={(event) => clock.seek(event.detail)}
/>

<style>
	.row {
		margin-bottom: var(--gap-4);
	}
</style>
