<script lang="ts">
	/** What few trials need: metrics to decide on, checks, a time to run. */
	import type { Writable } from 'svelte/store';
	import { Accordion, AccordionItem, Checkbox, NumberInput, Search } from 'carbon-components-svelte';
	import { isStepMetric, type MetricId } from '$core/metrics/catalogue';
	import Choice from '$lib/parts/Choice.svelte';
	import Field from '$lib/parts/Field.svelte';
	import StepsEditor from '$lib/parts/StepsEditor.svelte';
	import MomentField from '$lib/parts/MomentField.svelte';
	import type { TypedTrial } from '$lib/server/rooms/trials/form';

	interface Props {
		metrics: { id: string; name: string; usual: boolean }[];
		/** Visitor states of the client's sites. */
		states: { id: number; name: string }[];
		/** What the client's own margins and targets are, in words. */
		limits: string[];
		draft: Writable<TypedTrial>;
		issue: (path: string) => string;
	}
	let { metrics, states, limits, draft, issue }: Props = $props();
	let sought = $state('');
	const hasSteps = $derived([$draft, ...$draft.arms].some(({ steps }) => Boolean(steps?.trim())));
	/** Those that are chosen or usual, others when somebody looks for them; times of steps only where there are steps. */
	const offered = $derived(
		metrics.filter(({ id, name, usual }) => {
			if ($draft.primary.includes(id)) return true;
			if (isStepMetric(id as MetricId) && !hasSteps) return false;
			return sought.trim() ? name.toLowerCase().includes(sought.trim().toLowerCase()) : usual;
		})
	);
	const visitors = $derived([
		{ value: '', text: 'Anonymous' },
		...states.map(({ id, name }) => ({ value: String(id), text: name }))
	]);
	const hasIssue = $derived(
		[
			'primary',
			'steps',
			'mustSend',
			'notBefore',
			'spreadMinutes',
			...$draft.arms.flatMap((_, i) => [
				`arms.${i}.checks`,
				`arms.${i}.cold`,
				`arms.${i}.before`,
				`arms.${i}.steps`
			])
		].some((path) => issue(path) !== '')
	);
</script>

<Accordion align="start" size="sm">
	<AccordionItem title="More: metrics to decide on, checks, a time to run" open={hasIssue}>
		<h3>Metrics to decide on</h3>
		<p class="muted small">
			Chosen before the first load. They share the error level; the more there are, the more rounds each needs.
		</p>
		{#if issue('primary')}<p class="wrong">{issue('primary')}</p>{/if}
		<Search
			size="sm"
			labelText="Find a metric"
			placeholder="Find one of {metrics.length} metrics"
			bind:value={sought}
		/>
		<div class="cells metrics" style:--cell="14rem">
			{#each offered as metric (metric.id)}<Checkbox
					name="primary"
					value={metric.id}
					labelText={metric.name}
					bind:group={$draft.primary}
				/>{/each}
		</div>
		{#if limits.length}
			<h3>What matters to this client</h3>
			<Checkbox
				name="ownLimits"
				labelText="Judge by the client’s own margins and targets: {limits.join('; ')}"
				bind:checked={$draft.ownLimits}
			/>
		{/if}
		<h3>Did the change take effect?</h3>
		<p class="muted small">
			What must be there or gone in every load, one a line: host, address, header, selector or text. A stage
			that misses one is held.
		</p>
		<div class="cells">
			{#each $draft.arms as arm, i (i)}<Field
					rows={2}
					label="Checks of {arm.name || `variant ${i + 1}`}"
					name="arms.{i}.checks"
					placeholder={i ? 'header x-cache: HIT' : 'gone host chat.example.test'}
					bind:value={$draft.arms[i]!.checks}
					wrong={issue(`arms.${i}.checks`)}
				/>{/each}
		</div>
		<h3>Cold visits</h3>
		<p class="muted small">
			A variant can be loaded with the site’s cache empty each time: “bust nocache” adds a parameter that no
			cache has seen, “purge POST https://…” makes a call first.
		</p>
		<div class="cells">
			{#each $draft.arms as arm, i (i)}<Field
					label="Empty the cache for {arm.name || `variant ${i + 1}`}"
					name="arms.{i}.cold"
					placeholder="not emptied"
					bind:value={$draft.arms[i]!.cold}
					wrong={issue(`arms.${i}.cold`)}
				/>{/each}
		</div>
		<h3>Who visits</h3>
		{#if states.length}
			<p class="muted small">Signed in, with a basket: done before each load of the variant.</p>
			<div class="cells">
				{#each $draft.arms as arm, i (i)}<Choice
						label="Visitor of {arm.name || `variant ${i + 1}`}"
						name="arms.{i}.before"
						options={visitors}
						bind:value={$draft.arms[i]!.before}
						invalidText={issue(`arms.${i}.before`)}
					/>{/each}
			</div>
		{:else}<p class="muted small">
				Anonymous. Add a visitor state (signed in, basket filled) to a site of the client to load as somebody
				else.
			</p>{/if}
		<h3>What must still be sent</h3>
		<Field
			rows={2}
			label="Requests that must still leave, one a line: name: address"
			name="mustSend"
			help="Counting, consent, ads, orders; * stands for anything."
			placeholder="Visit counting: *stats.example.test/hit*"
			bind:value={$draft.mustSend}
			wrong={issue('mustSend')}
		/>
		<h3>Steps after each load</h3>
		<StepsEditor
			label="Steps after each load"
			name="steps"
			url={$draft.arms[0]?.url ?? ''}
			help="They show that nothing broke, and time what a click brings."
			bind:value={$draft.steps}
			wrong={issue('steps')}
		/>
		<p class="muted small">
			A variant may go a way of its own: a click in one, the whole page again in another. What is compared is
			the time until the step’s content is there, and until all is quiet.
		</p>
		<div class="cells">
			{#each $draft.arms as arm, i (i)}<StepsEditor
					label="Steps of {arm.name || `variant ${i + 1}`}"
					name="arms.{i}.steps"
					placeholder="As above."
					url={arm.url}
					bind:value={$draft.arms[i]!.steps}
					wrong={issue(`arms.${i}.steps`)}
				/>{/each}
		</div>
		<h3>What comes late</h3>
		<Checkbox
			name="lateLoads"
			labelText="At the end, load each variant once while nobody moves for 15 to 30 s, and once with an interaction"
			bind:checked={$draft.lateLoads}
		/>
		<h3>A time to run</h3>
		<div class="cells">
			<MomentField
				label="Not before"
				name="notBefore"
				bind:value={$draft.notBefore}
				wrong={issue('notBefore')}
			/>
			<NumberInput
				labelText="Rounds spread over, minutes"
				name="spreadMinutes"
				size="sm"
				allowEmpty
				min={1}
				max={10080}
				bind:value={$draft.spreadMinutes}
				invalid={issue('spreadMinutes') !== ''}
				invalidText={issue('spreadMinutes')}
			/>
		</div>
	</AccordionItem>
</Accordion>

<style>
	.metrics {
		margin-bottom: var(--gap-5);
	}
	h3 {
		margin-top: var(--gap-5);
	}
</style>
