<svelte:options css="injected" />

<script lang="ts">
	/** The score before and after, and what each metric gave or took. */
	import type { BlockBody } from '$core/report/view';

	let { body }: { body: Extract<BlockBody, { kind: 'score' }> } = $props();
	/** Points at which a bar is as long as it gets. */
	const longest = (parts: readonly { points: number }[]) =>
		Math.max(1, ...parts.map(({ points }) => Math.abs(points)));
</script>

{#each body.rows as row, n (n)}
	<div class="together">
		<h3 dir="auto">{row.title}</h3>
		<p class="score">
			<span data-figure={row.before.ref}>{row.before.text}</span> <span aria-hidden="true">→</span>
			<span data-figure={row.after.ref}>{row.after.text}</span>
			<small data-figure={row.shift.ref}>{row.shift.text}</small>
		</p>
		{#if row.parts.length}
			<table>
				<tbody>
					{#each row.parts as part (part.name)}
						{@const share = part.points / longest(row.parts)}
						<tr>
							<th scope="row">{part.name}</th>
							<td class="figure">{part.text}</td>
							<td>
								<svg width="100%" height="14" aria-hidden="true">
									<line x1="50%" x2="50%" y2="14" stroke="var(--rule-strong)" />
									<rect
										x="{share < 0 ? 50 + share * 48 : 50}%"
										width="{Math.abs(share) * 48}%"
										y="2"
										height="10"
										fill={share < 0 ? 'var(--worse)' : 'var(--better)'}
									/>
								</svg>
							</td>
						</tr>
					{/each}
				</tbody>
			</table>
		{/if}
	</div>
{/each}
{#if body.rows[0]}<p class="about">{body.rows[0].about}</p>{/if}

<style>
	h3 {
		font-size: 1rem;
		margin: 0.6rem 0 0;
	}
	.score {
		font:
			600 1.6rem/1.3 'Source Serif',
			Georgia,
			serif;
		margin: 0;
	}
	small {
		font:
			400 0.92rem 'Source Sans',
			sans-serif;
		color: var(--muted);
	}
	table {
		width: 100%;
		max-width: 32rem;
		border-collapse: collapse;
	}
	th {
		text-align: left;
		font-weight: 400;
		width: 10rem;
		padding: 0.1rem 0;
	}
	.figure {
		width: 4rem;
		text-align: right;
		padding-right: 0.6rem;
	}
	.about {
		color: var(--muted);
		font-size: 0.88rem;
		margin: 0.4rem 0;
	}
</style>
