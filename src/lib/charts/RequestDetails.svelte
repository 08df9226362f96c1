<script lang="ts">
	import { Button } from 'carbon-components-svelte';
	/** All that is known of one request; its headers and who asked for it come when it is opened. */
	import { onMount } from 'svelte';
	import { cacheLifetimeOf, compressionOf, servedFrom, wordLifetime } from '$core/load/requests/delivery';
	import type { RequestRecord } from '$core/load/record/record';
	import type { OwnedRequest } from '$core/load/requests/requestList';
	import { formatBytes, formatDuration } from '$core/wording/format';

	interface Props {
		listed: OwnedRequest;
		detailsUrl: string;
		colour: string;
		onclose: () => void;
	}
	let { listed, detailsUrl, colour, onclose }: Props = $props();

	let request: RequestRecord | null = $state.raw(null);
	let trouble = $state('');
	onMount(async () => {
		try {
			const response = await fetch(detailsUrl);
			if (!response.ok) throw new Error(`status ${response.status}`);
			request = (await response.json()) as RequestRecord;
		} catch (error) {
			trouble = `The details could not be read (${(error as Error).message}). Close and open the row to try again.`;
		}
	});
	const PARTS = [
		['queue', 'Waiting in the browser'],
		['dns', 'Look-up'],
		['connect', 'Connecting, TLS within'],
		['send', 'Sending'],
		['wait', 'Waiting for the first byte'],
		['receive', 'Receiving']
	] as const;
	const whole = $derived(listed.endMs === null ? null : listed.endMs - listed.startMs);
	const steps = $derived.by(() => {
		if (!request) return [];
		const { timing } = request;
		let at = 0;
		return PARTS.flatMap(([id, name]) => {
			const ms = timing[id];
			if (ms === null) return [];
			const from = at;
			at += ms;
			return [
				{
					name: id === 'connect' && timing.tls !== null ? `${name} ${formatDuration(timing.tls)}` : name,
					ms,
					from
				}
			];
		});
	});
	const sum = $derived(steps.reduce((all, step) => all + step.ms, 0) || 1);
	const size = (bytes: number | null) => (bytes === null ? 'unknown' : formatBytes(bytes));
	const compression = $derived(compressionOf(listed));
	const chainOf = ({ initiatorChain, initiatorUrl, initiatorType }: RequestRecord) =>
		initiatorChain.length ? initiatorChain : [initiatorUrl ?? initiatorType];
</script>

<section class="details" aria-label="Details of request {listed.number}">
	<div class="spread head">
		<h3>
			<i class="swatch" style:background={colour}></i>Request {listed.number}: {request?.method ?? ''}
			<span class="url">{listed.url}</span>
		</h3>
		<Button kind="ghost" size="small" on:click={onclose}>Close</Button>
	</div>
	{#if request}
		<div class="cells" style:--cell="22rem">
			<div>
				<h4>Time</h4>
				<p class="figures">
					{formatDuration(request.startMs)} to {request.endMs === null
						? 'unfinished'
						: formatDuration(request.endMs)}{whole === null ? '' : `, ${formatDuration(whole)} in all`}
				</p>
				{#if steps.length}
					<table class="ledger">
						<tbody>
							{#each steps as step (step.name)}
								<tr
									><th scope="row">{step.name}</th><td class="number">{formatDuration(step.ms)}</td><td
										class="track"
										><span
											style:left="{(step.from / sum) * 100}%"
											style:width="{Math.max(1, (step.ms / sum) * 100)}%"
											style:background={colour}
										></span></td
									></tr
								>
							{/each}
						</tbody>
					</table>
				{:else}<p class="muted">
						The browser told no parts of this time{request.fromCache ? ': it came from a cache' : ''}.
					</p>{/if}
			</div>
			<div>
				<h4>What it is</h4>
				<dl>
					<dt>Answer</dt>
					<dd>
						{request.failed ?? `${request.status ?? 'none'} ${request.statusText}`}{request.redirectTo
							? `, redirected to ${request.redirectTo}`
							: ''}
					</dd>
					<dt>Type</dt>
					<dd>
						{request.type}{request.mimeType ? `, ${request.mimeType}` : ''}{request.renderBlocking
							? ', blocks rendering'
							: ''}
					</dd>
					<dt>Whose</dt>
					<dd>{listed.owner.name}{listed.owner.kind === 'third-party' ? ', third party' : ''}</dd>
					<dt>On the wire</dt>
					<dd>
						{size(request.wireBytes)}{request.fromCache ? ', from the cache' : ''}{request.fromServiceWorker
							? ', answered by the service worker'
							: ''}
					</dd>
					<dt>Decoded</dt>
					<dd>
						{size(request.decodedBytes)}{compression.encoding
							? `, ${compression.encoding}`
							: compression.expected
								? ', not compressed'
								: ''}{compression.wouldSave ? `: gzip would save ${formatBytes(compression.wouldSave)}` : ''}
					</dd>
					{#if request.unused !== null}<dt>Not used here</dt>
						<dd>{formatBytes(request.unused)}</dd>{/if}
					<dt>May be kept</dt>
					<dd>
						{wordLifetime(cacheLifetimeOf(request))}{servedFrom(request)
							? `; a cache on the way: ${servedFrom(request)}`
							: ''}
					</dd>
					<dt>Protocol</dt>
					<dd>
						{request.protocol ?? 'unknown'}{request.priority
							? `, priority ${request.priority}`
							: ''}{request.connectionId ? `, connection ${request.connectionId}` : ''}
					</dd>
					{#if request.during !== 'load'}<dt>When</dt>
						<dd>{request.during === 'nudge' ? 'Only after the nudge' : `In ${request.during}`}</dd>{/if}
				</dl>
				<h4>Who asked for it</h4>
				<ol class="chain">
					{#each chainOf(request) as step, i (i)}<li>
							{step}
						</li>{/each}
				</ol>
				<p class="muted">Kind: {request.initiatorType}</p>
			</div>
		</div>
		<details>
			<summary>Headers: {request.requestHeaders.length} sent, {request.responseHeaders.length} received</summary
			>
			<div class="cells" style:--cell="22rem">
				{#each [['Sent', request.requestHeaders], ['Received', request.responseHeaders]] as const as [name, headers] (name)}
					<div>
						<h4>{name}</h4>
						<table class="ledger">
							<tbody
								>{#each headers as [header, value], i (i)}<tr
										><th scope="row">{header}</th><td class="value">{value}</td></tr
									>{/each}</tbody
							>
						</table>
					</div>
				{/each}
			</div>
		</details>
	{:else}<p class="muted">{trouble || 'Reading the details …'}</p>{/if}
</section>

<style>
	.details {
		border: 1px solid var(--rule);
		background: var(--panel);
		padding: var(--gap-5) var(--gap-6);
		margin: var(--gap-3) 0 var(--gap-5);
		font-size: var(--type-4);
	}
	h3 {
		font-size: var(--type-5);
		overflow-wrap: anywhere;
	}
	.url {
		font-family: var(--sans);
		font-weight: 400;
	}
	h4 {
		font: 600 0.86rem/1.3 var(--sans);
		color: var(--muted);
		margin: var(--gap-3) 0 var(--gap-2);
	}
	.ledger {
		font-size: var(--type-3);
	}
	th {
		font-weight: 400;
	}
	.track {
		position: relative;
		width: 40%;
	}
	.track span {
		position: absolute;
		top: 0.55rem;
		height: 0.6rem;
	}
	.value {
		overflow-wrap: anywhere;
	}
	dl {
		display: grid;
		grid-template-columns: 7rem 1fr;
		gap: var(--gap-1) var(--gap-4);
		margin: 0;
	}
	dd {
		margin: 0;
		overflow-wrap: anywhere;
	}
	.chain {
		padding-left: var(--gap-7);
		margin: 0;
		list-style: decimal;
		overflow-wrap: anywhere;
	}
	summary {
		cursor: pointer;
		color: var(--action);
		margin-top: var(--gap-4);
	}
</style>
