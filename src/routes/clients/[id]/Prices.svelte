<script lang="ts">
	/** What the sites run on, and what it costs with this client's traffic. */
	import type { SetupsView } from '$lib/server/rooms/setups/view';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';
	import { wordMoney } from '$core/wording/money';
	import { monthsWords } from './money';

	let { setups, currency }: { setups: SetupsView; currency: string } = $props();
	type Line = SetupsView[number]['lines'][number];
	const money = (amount: number) => wordMoney(amount, currency);
	const priceOf = ({ monthly, later, isOver }: Line) => {
		if (isOver) return 'more visits than it covers';
		if (monthly === null) return 'not known';
		return later !== null && later !== monthly ? `${money(monthly)}, later ${money(later)}` : money(monthly);
	};
	const othersOf = ({ others }: Line) =>
		others
			.map(({ tier, monthly, breakEven }) => {
				const price = monthly === null ? 'covers fewer visits' : `${money(monthly)} a month`;
				return `${tier}: ${price}${breakEven === null ? '' : `, no dearer ${monthsWords(breakEven)}`}`;
			})
			.join('; ');
	const quotaOf = ({ tier, quota, quotaEnds, perThousand }: Line) => {
		if (!tier) return 'no tier is chosen';
		if (quota === null) return 'any number';
		const covered = `${Math.round(quota).toLocaleString('en-GB')} a month`;
		if (perThousand !== null) return `${covered}, each 1,000 more for ${money(perThousand)}`;
		return quotaEnds === null ? covered : `${covered}, exceeded ${monthsWords(quotaEnds)}`;
	};
	const columns: Column<Line>[] = $derived([
		{
			key: 'name',
			name: 'Component',
			isRowHead: true,
			text: ({ name, version }) => `${name} ${version}`.trim()
		},
		{ key: 'kind', name: 'Kind', text: ({ kind }) => kind },
		{ key: 'tier', name: 'Tier', text: ({ tier }) => tier || 'not chosen' },
		{ key: 'price', name: 'A month', number: true, text: priceOf },
		{ key: 'quota', name: 'Visits that it covers', text: quotaOf },
		{ key: 'others', name: 'Other tiers', text: othersOf }
	]);
</script>

{#each setups as { siteId, site, visits, lines, monthly, clashes } (siteId)}
	<h3>{site}</h3>
	<p class="muted small">
		{visits === null
			? 'No traffic table yet: prices are those of a site without visits.'
			: `${Math.round(visits).toLocaleString('en-GB')} visits a month.`}
		{#if monthly !== null}Known prices together: {money(monthly)} a month.{/if}
	</p>
	{#each clashes as clash (clash)}<p class="clash">{clash}</p>{/each}
	<Table label="Components of {site}" {columns} rows={lines} key={({ id }) => id} />
{:else}
	<p class="muted">
		Nothing is written down. Open a site and say what it runs on; the library of components is in the
		<a href="/workshop/components">workshop</a>.
	</p>
{/each}
