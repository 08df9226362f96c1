<script lang="ts">
	/** Page weight of every site of a standing: kinds, then owners, by site; bytes as sent, and requests. */
	import { ascending, max, rollup, sum } from 'd3-array';
	import { formatBytes } from '$core/wording/format';
	import Table from '$lib/parts/Table.svelte';
	import type { Column } from '$lib/parts/tableRows';

	interface Part {
		name: string;
		wireBytes: number;
		requests: number;
	}
	interface Content {
		page: number;
		kinds: readonly { kind: string; wireBytes: number; requests: number }[];
		owners: readonly Part[];
	}
	interface Props {
		content: readonly Content[];
		pages: readonly { id: number; name: string }[];
	}
	let { content, pages }: Props = $props();
	/** Owners beyond are one row. */
	const MOST_OWNERS = 8;

	interface Row {
		name: string;
		/** By page. */
		of: Map<number, Part>;
	}
	const kinds = $derived(
		rowsOf(({ kinds: own }) =>
			own.map(({ kind, wireBytes, requests }) => ({ name: kind, wireBytes, requests }))
		)
	);
	const owners = $derived.by(() => {
		const all = rowsOf((own) => own.owners);
		const rest = all.slice(MOST_OWNERS);
		return rest.length ? [...all.slice(0, MOST_OWNERS), together('Others', rest)] : all;
	});
	const rows = $derived([together('All', kinds), ...kinds]);

	/** The heaviest first. */
	function rowsOf(partsOf: (content: Content) => readonly Part[]): Row[] {
		const all = content.flatMap((own) => partsOf(own).map((part) => ({ page: own.page, part })));
		const byName = rollup(
			all,
			(same) => new Map(same.map(({ page, part }) => [page, part])),
			({ part }) => part.name
		);
		const most = ({ of }: Row) => max([...of.values()], ({ wireBytes }) => wireBytes) ?? 0;
		return [...byName]
			.map(([name, of]) => ({ name, of }))
			.sort((a, b) => most(b) - most(a) || ascending(a.name, b.name));
	}
	function together(name: string, parts: readonly Row[]): Row {
		const ofPage = (page: number): Part => {
			const own = parts.flatMap(({ of }) => of.get(page) ?? []);
			return {
				name,
				wireBytes: sum(own, (part) => part.wireBytes),
				requests: sum(own, (part) => part.requests)
			};
		};
		return { name, of: new Map(content.map(({ page }) => [page, ofPage(page)])) };
	}
	const columnsOf = (head: string): Column<Row>[] => [
		{ key: 'name', name: head, isRowHead: true, text: ({ name }) => name, sort: ({ name }) => name },
		...pages.map(({ id, name }) => ({
			key: String(id),
			name,
			number: true,
			text: ({ of }: Row) => wordsOf(of.get(id)),
			sort: ({ of }: Row) => of.get(id)?.wireBytes ?? null
		}))
	];
	const wordsOf = (part: Part | undefined) =>
		part?.requests ? `${formatBytes(part.wireBytes)} in ${part.requests}` : '–';
</script>

<p class="muted small">As sent, and in how many requests; of the middle load of the newest run.</p>
<Table label="Page weight by kind" columns={columnsOf('Kind')} {rows} key={({ name }) => name} />
<Table label="Page weight by owner" columns={columnsOf('Owner')} rows={owners} key={({ name }) => name} />
