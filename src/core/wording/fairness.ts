/** Lines of the fairness sheet in words. */
import type { FairnessLine, LineState, LineValue } from '../compare/fairness/line';
import { ENGLISH } from './words';

export interface FairnessText {
	id: FairnessLine['id'];
	name: string;
	state: LineState;
	values: [before: string, after: string];
	/** What a difference means for the answer. */
	meaning: string;
	intended: boolean;
}

export function describeFairness({ id, state, values, about, intended }: FairnessLine): FairnessText {
	const [before, after] = values.map(describeValue) as [string, string];
	const name = ENGLISH.say(`fair.${id}`);
	return { id, name, state, values: [before, after], meaning: ENGLISH.say(`fair.${id}.meaning`, about), intended };
}

function describeValue(value: LineValue): string {
	switch (value.kind) {
		case 'text':
			return value.text;
		case 'speed':
			return ENGLISH.say('fair.value.speed', { value: value.value.toFixed(0) });
		case 'share':
			return ENGLISH.say('fair.value.share', { value: Math.round(value.value * 100) });
		case 'alike':
			return ENGLISH.say('fair.value.alike', { value: (value.value * 100).toFixed(1) });
		case 'span':
			return ENGLISH.say('fair.value.span', {
				from: value.from.slice(0, 16).replace('T', ' '),
				to: value.to.slice(11, 16)
			});
		case 'cache-hits':
			return ENGLISH.say('fair.value.cache-hits', { hits: value.hits, of: value.of });
		case 'failures':
			return ENGLISH.say('fair.value.failures', { failed: value.failed, of: value.of });
		default:
			return ENGLISH.say(`fair.value.${value.kind}`);
	}
}
