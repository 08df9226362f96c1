/** By what a component's requests are known in a load, and what each component then costs there. */
import { sum } from 'd3-array';
import * as v from 'valibot';
import { BROWSER_WORK, tasksByOwner, timeByOwner } from '../load/vitals/mainThread';
import type { InlineCode } from '../load/record/pageRecord';
import type { LoadRecord, RequestRecord } from '../load/record/record';

const pattern = (name: string) =>
	v.pipe(
		v.string(`${name} is text.`),
		v.trim(),
		v.nonEmpty(`${name} is empty.`),
		v.maxLength(300, `${name} has at most 300 characters.`)
	);
const list = (name: string) => v.optional(v.pipe(v.array(pattern(name)), v.maxLength(50, 'At most 50 of a kind.')), []);

export const Recognition = v.object({
	/** A host and all below it. */
	hosts: list('A host'),
	/** Part of the path; * stands for anything. */
	paths: list('A path'),
	/** Part of the beginning of an inline script or style. */
	markers: list('A marker'),
	/** What asked for it: a host, or part of the path, of the script. */
	initiators: list('An initiator')
});
export type Recognition = v.InferOutput<typeof Recognition>;

export const NO_RECOGNITION: Recognition = { hosts: [], paths: [], markers: [], initiators: [] };

export interface KnownComponent {
	id: number;
	name: string;
	recognition: Recognition;
}

type Asked = Pick<RequestRecord, 'url' | 'host' | 'initiatorChain'>;

/** `*` stands for any characters; the rest for itself; anywhere in the text. */
function matches(glob: string, text: string): boolean {
	const source = glob.split('*').map((part) => part.replace(/[.+?^${}()|[\]\\]/g, '\\$&'));
	return new RegExp(source.join('.*'), 'i').test(text);
}

const isHost = (host: string, own: string) => host === own || host.endsWith(`.${own}`);
const hostOf = (host: string) => host.replace(/:\d+$/, '').toLowerCase();

/** How a request is known: by itself, or by what asked for it; null when it is not. */
export function recognise({ url, host, initiatorChain }: Asked, recognition: Recognition): 'own' | 'initiated' | null {
	const own = hostOf(host);
	if (recognition.hosts.some((candidate) => isHost(own, candidate.toLowerCase()))) return 'own';
	const { pathname } = new URL(url);
	if (recognition.paths.some((glob) => matches(glob, pathname))) return 'own';
	const isInitiator = (address: string) =>
		recognition.initiators.some((glob) => matches(glob, address)) ||
		(URL.canParse(address) &&
			recognition.hosts.some((candidate) => isHost(hostOf(new URL(address).host), candidate.toLowerCase()))) ||
		(URL.canParse(address) && recognition.paths.some((glob) => matches(glob, new URL(address).pathname)));
	return initiatorChain.some(isInitiator) ? 'initiated' : null;
}

/** Whether inline code is a component's, by its beginning. */
export const isMarked = ({ start }: Pick<InlineCode, 'start'>, { markers }: Recognition): boolean =>
	markers.some((marker) => start.includes(marker));

export interface ComponentCost {
	/** Null for what nobody claims. */
	component: number | null;
	name: string;
	requests: number;
	wireBytes: number;
	decodedBytes: number;
	/** Of them, those that others asked for on its behalf. */
	initiated: number;
	/** Inline code in the document. */
	inlineBytes: number;
	/** Its part of the Total Blocking Time, ms. */
	blockingMs: number;
}

/**
 * What a load's requests, inline code and scripts cost by component, most bytes first; what no component claims stands
 * last. A request that several claim goes to the one that knows it by itself, then to the first.
 */
export function attribute(
	record: Pick<LoadRecord, 'requests' | 'page' | 'longTasks' | 'longFrames' | 'figures' | 'settledMs'>,
	components: readonly KnownComponent[],
	unattributed: string
): ComponentCost[] {
	const claims = record.requests.map((request) => ({ request, ...claimOf(request, components) }));
	const inline = (record.page?.inline ?? []).map((code) => ({
		bytes: code.bytes,
		component: components.find(({ recognition }) => isMarked(code, recognition))?.id ?? null
	}));
	const blocking = blockingByComponent(record, components);
	const costOf = (component: number | null, name: string): ComponentCost => {
		const own = claims.filter((claim) => claim.component === component);
		return {
			component,
			name,
			requests: own.length,
			wireBytes: sum(own, ({ request }) => request.wireBytes ?? 0),
			decodedBytes: sum(own, ({ request }) => request.decodedBytes ?? 0),
			initiated: own.filter(({ how }) => how === 'initiated').length,
			inlineBytes: sum(
				inline.filter((code) => code.component === component),
				({ bytes }) => bytes
			),
			blockingMs: blocking.get(component) ?? 0
		};
	};
	const costs = components.map(({ id, name }) => costOf(id, name));
	const found = costs.filter(({ requests, inlineBytes, blockingMs }) => requests + inlineBytes + blockingMs > 0);
	return [...found.sort((a, b) => b.wireBytes - a.wireBytes), costOf(null, unattributed)];
}

/** Blocking time by component; the browser's own work and inline scripts are nobody's. */
function blockingByComponent(
	record: Parameters<typeof tasksByOwner>[0],
	components: readonly KnownComponent[]
): Map<number | null, number> {
	const ownerOf = (url: string) => {
		const found = URL.canParse(url)
			? components.find(
					({ recognition }) => recognise({ url, host: new URL(url).host, initiatorChain: [] }, recognition) === 'own'
				)
			: undefined;
		return found ? { id: String(found.id), name: found.name, kind: 'own' as const } : BROWSER_WORK;
	};
	const times = timeByOwner(tasksByOwner(record, ownerOf));
	return new Map(times.map(({ owner, blockingMs }) => [owner === BROWSER_WORK ? null : Number(owner.id), blockingMs]));
}

function claimOf(request: Asked, components: readonly KnownComponent[]) {
	let initiated: number | null = null;
	for (const { id, recognition } of components) {
		const how = recognise(request, recognition);
		if (how === 'own') return { component: id, how };
		if (how === 'initiated') initiated ??= id;
	}
	return { component: initiated, how: initiated === null ? null : ('initiated' as const) };
}

export interface ComponentProposal {
	name: string;
	recognition: Recognition;
	requests: number;
	wireBytes: number;
	/** Up to three of its addresses. */
	examples: string[];
}

/** Folders that hold things of a kind, not of a component. */
const GENERIC =
	/^(assets?|css|js|img|images?|media|fonts?|static|dist|build|files?|uploads?|public|scripts?|styles?|themes?|plugins?|modules?|extensions?|components?|lib|libs|vendor|packages|content|includes|\d+)$/i;
const EXAMPLES = 3;

/**
 * Components that a load's own addresses suggest: hosts of others each, and of the site's own files those below a
 * folder with a name of its own. What a known component claims already is left aside.
 */
export function proposeComponents(
	requests: readonly (Asked & Pick<RequestRecord, 'wireBytes' | 'type'>)[],
	isOwnHost: (host: string) => boolean,
	components: readonly KnownComponent[]
): ComponentProposal[] {
	const proposals = new Map<string, ComponentProposal>();
	for (const request of requests) {
		if (request.type === 'document' || claimOf(request, components).component !== null) continue;
		const found = isOwnHost(request.host) ? folderOf(request.url) : hostProposal(request.host);
		if (!found) continue;
		const existing = proposals.get(found.name) ?? { ...found, requests: 0, wireBytes: 0, examples: [] };
		existing.requests++;
		existing.wireBytes += request.wireBytes ?? 0;
		if (existing.examples.length < EXAMPLES) existing.examples.push(request.url);
		proposals.set(found.name, existing);
	}
	return [...proposals.values()].sort((a, b) => b.wireBytes - a.wireBytes);
}

function hostProposal(host: string) {
	const name = hostOf(host);
	return { name, recognition: { ...NO_RECOGNITION, hosts: [name] } };
}

/** The first folder that is not just of a kind; null where all are. */
function folderOf(url: string) {
	const folders = new URL(url).pathname.split('/').slice(1, -1);
	const at = folders.findIndex((folder) => folder !== '' && !GENERIC.test(folder));
	if (at < 0) return null;
	return { name: folders[at]!, recognition: { ...NO_RECOGNITION, paths: [`/${folders.slice(0, at + 1).join('/')}/`] } };
}
