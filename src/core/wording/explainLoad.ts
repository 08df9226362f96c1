/** One load explained in a few sentences. Facts of this load alone: nothing is compared. */
import type { LoadExplanation } from '../compare/explainLoad';
import { formatDuration, formatIn } from './format';
import { PART_WORDS } from './parts';

/** Names beyond these do not make a sentence clearer. */
const MOST_NAMES = 2;
/** Parts that make up so much of the largest paint are named. */
const LARGE_PART = 0.2;

export function describeLoad({ lcp, blocking, moved, tail }: LoadExplanation): string[] {
	return [
		lcp && lcpSentence(lcp),
		blocking &&
			PART_WORDS.say('load.blocking', {
				ms: formatDuration(blocking.ms),
				owners: withSizes(blocking.owners, ({ ms }) => formatDuration(ms))
			}),
		moved &&
			PART_WORDS.say('load.moved', {
				cls: formatIn('unitless', moved.cls),
				elements: withSizes(
					moved.elements.map(({ name, value }) => ({ name: shortSelector(name), value })),
					({ value }) => formatIn('unitless', value)
				)
			}),
		tail &&
			PART_WORDS.say('load.tail', {
				ms: formatDuration(tail.ms),
				owners: PART_WORDS.list(tail.owners.slice(0, MOST_NAMES).map(({ name }) => name))
			})
	].filter((sentence) => sentence !== null);
}

function lcpSentence({ ms, element, parts }: NonNullable<LoadExplanation['lcp']>): string {
	const large = parts.filter((part) => part.ms >= LARGE_PART * ms);
	return PART_WORDS.say('load.lcp', {
		ms: formatDuration(ms),
		element: shortSelector(element ?? ''),
		known: element ? 'yes' : 'no',
		parts: PART_WORDS.list(
			large.map((part) => `${formatDuration(part.ms)} ${PART_WORDS.say(`load.lcp.${part.part}`)}`)
		),
		some: large.length ? 'yes' : 'no'
	});
}

/** The last steps of a selector's path: enough to know an element by. */
function shortSelector(selector: string): string {
	return selector.split(' > ').slice(-2).join(' > ');
}

function withSizes<Item extends { name: string }>(items: readonly Item[], size: (item: Item) => string): string {
	const listed = items.slice(0, MOST_NAMES).map((item) => `${item.name} (${size(item)})`);
	const more = items.length - listed.length;
	return PART_WORDS.list(more > 0 ? [...listed, PART_WORDS.say('load.more', { n: more })] : listed);
}
