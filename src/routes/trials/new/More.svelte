<script lang="ts">
	/** What few trials need: metrics to decide on, checks, a time to run. */
	interface Props {
		metrics: { id: string; name: string }[];
		primary: string[];
		typed: { steps?: string; notBefore?: string | null; spreadMinutes?: number | null } | undefined;
		open: boolean;
		issue: (path: string) => string;
	}
	let { metrics, primary = $bindable(), typed, open, issue }: Props = $props();
</script>

<details class="more" {open}>
	<summary>More: metrics to decide on, checks, a time to run</summary>
	<section>
		<h3>Metrics to decide on</h3>
		<p class="muted small">
			Chosen before the first load. They share the error level; the more there are, the more rounds each needs.
		</p>
		{#if issue('primary')}<p class="wrong">{issue('primary')}</p>{/if}
		<div class="metrics">
			{#each metrics as metric (metric.id)}<label
					><input
						type="checkbox"
						name="primary"
						value={metric.id}
						checked={primary.includes(metric.id)}
						onchange={(event) =>
							(primary = event.currentTarget.checked
								? [...primary, metric.id]
								: primary.filter((id) => id !== metric.id))}
					/>
					{metric.name}</label
				>{/each}
		</div>
	</section>
	<section>
		<h3>Steps after each load</h3>
		<p class="muted small">
			A JSON list that shows that nothing broke: open, click, type, scroll, wait, expect, mark.
		</p>
		<textarea
			name="steps"
			rows="3"
			spellcheck="false"
			aria-label="Steps after each load"
			placeholder={'[{"click": "#menu"}, {"expect": {"text": "Timetable"}}]'}>{typed?.steps ?? ''}</textarea
		>
		{#if issue('steps')}<p class="wrong" role="alert">{issue('steps')}</p>{/if}
	</section>
	<section>
		<h3>A time to run</h3>
		<div class="numbers">
			<label class="inline"
				>Not before <input type="datetime-local" name="notBefore" value={typed?.notBefore ?? ''} /></label
			>
			<label class="inline"
				>Rounds spread over <input
					type="number"
					name="spreadMinutes"
					min="1"
					max="10080"
					value={typed?.spreadMinutes ?? ''}
				/> minutes</label
			>
		</div>
		{#if issue('notBefore') || issue('spreadMinutes')}<p class="wrong">
				{issue('notBefore') || issue('spreadMinutes')}
			</p>{/if}
	</section>
</details>

<style>
	section {
		margin-bottom: 1.8rem;
	}
	.numbers {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(min(100%, 15rem), 1fr));
		gap: 1.2rem;
		margin-bottom: 0.7rem;
	}
	.inline {
		font-size: 0.9rem;
	}
	textarea {
		width: 100%;
		font-family: ui-monospace, monospace;
		font-size: 0.86rem;
	}
	.metrics {
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(min(100%, 14rem), 1fr));
		gap: 0.2rem 1rem;
		font-size: 0.9rem;
	}
	.metrics label {
		display: flex;
		gap: 0.5rem;
	}
	.more summary {
		cursor: pointer;
		color: var(--action);
		margin-bottom: 0.8rem;
	}
	.small {
		font-size: 0.88rem;
	}
	.wrong {
		color: var(--worse);
	}
	input[type='checkbox'] {
		accent-color: var(--action);
		width: 1.05rem;
		height: 1.05rem;
		margin-top: 0.2rem;
		flex: none;
	}
</style>
