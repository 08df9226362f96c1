/** How the mend of a finding is tried before anybody builds it: as rewrites, for rules that know their mend. */
import type { BodyFacts } from '../findings/bodyFacts';
import type { Finding } from '../findings/finding';
import type { Rewrite } from './rewrite';

type Told = Pick<Finding, 'rule' | 'resource' | 'values' | 'evidence'>;

/**
 * Lifetimes show on repeat visits only, which an audit does not make: no rewrite is offered for them.
 * @param facts of the resource's file, where it was looked through @returns none for a rule that knows no rewrite
 */
export function rehearsalOf(finding: Told, facts: BodyFacts | null = null): Rewrite[] {
	const { resource, evidence } = finding;
	const address = resource.kind === 'address' ? resource.name : null;
	const selector = evidence.selector ?? (resource.kind === 'selector' ? resource.name : null);
	return [
		...(address ? ofFile(finding, address, facts) : []),
		...(selector ? ofElement(finding, selector) : []),
		...ofHosts(finding)
	];
}

function ofFile({ rule, values }: Told, address: string, facts: BodyFacts | null): Rewrite[] {
	switch (rule) {
		case 'picture-too-large':
			return [pictureOf(address, values, facts)];
		case 'picture-old-format':
			return [{ do: 'replace', address, with: 'picture', format: bestFormat(facts) }];
		case 'picture-poorly-packed':
			return [{ do: 'replace', address, with: 'picture' }];
		case 'not-minified':
			return [{ do: 'replace', address, with: /\.css(\?|$)/.test(address) ? 'style' : 'script' }];
		case 'largest-late-found':
			return [{ do: 'preload', address, as: 'image', priority: 'high' }];
		case 'script-in-the-way':
			return [{ do: 'attribute', selector: `script[src*="${lastPart(address)}"]`, name: 'defer', value: '' }];
		case 'font-not-drawn':
			return [{ do: 'block', address }];
		default:
			return [];
	}
}

function ofElement({ rule, values }: Told, selector: string): Rewrite[] {
	const attribute = (name: string, value: string): Rewrite[] => [{ do: 'attribute', selector, name, value }];
	switch (rule) {
		case 'picture-early':
			return attribute('loading', 'lazy');
		case 'largest-lazy':
			return values.how === 'lazy' ? attribute('loading', 'eager') : [];
		case 'largest-without-priority':
			return attribute('fetchpriority', 'high');
		default:
			return [];
	}
}

/** Of two declarations in a rule the last one counts. */
const SWAPPED = {
	find: '@font-face\\s*\\{([^}]*)\\}',
	isPattern: true,
	replacement: '@font-face{$1;font-display:swap}'
};

function ofHosts({ rule, resource, values }: Told): Rewrite[] {
	switch (rule) {
		case 'text-plain-sent':
		case 'text-weakly-packed':
			return [{ do: 'compress', address: `*//${resource.name}/*` }];
		case 'connection-late':
			return [{ do: 'preconnect', host: String(values.host) }];
		case 'text-hidden':
			return [{ do: 'text', address: '*', ...SWAPPED }];
		case 'font-far':
			return [{ do: 'own-host', host: String(values.host) }];
		case 'third-party-cost':
			return [{ do: 'block', owner: resource.key }];
		case 'third-party-unconfirmed':
			return [{ do: 'block', host: resource.key }];
		case 'starts-unasked':
			return [{ do: 'delay', host: resource.key, until: 'input' }];
		default:
			return [];
	}
}

function pictureOf(address: string, values: Told['values'], facts: BodyFacts | null): Rewrite {
	const [width, height] = [Number(values.neededWidth), Number(values.neededHeight)];
	const size = width > 0 && height > 0 ? { width, height } : {};
	return { do: 'replace', address, with: 'picture', ...size, ...(facts ? { format: bestFormat(facts) } : {}) };
}

/** The one that was found to be smallest; today's usual one where nothing was looked through. */
function bestFormat(facts: BodyFacts | null): 'jpeg' | 'png' | 'webp' | 'avif' {
	const encoded = [...(facts?.picture?.encoded ?? [])].sort((a, b) => a.bytes - b.bytes);
	const best = encoded[0]?.format;
	return best === undefined || best === 'gif' ? 'webp' : best;
}

const lastPart = (address: string): string =>
	(new URL(address).pathname.split('/').at(-1) ?? '').replace(/["\\]/g, '\\$&');
