/** A site of a client: its own, one it competes with, or a scratch install. */
import * as v from 'valibot';
import { PLACES } from '../load/conditions/places';

export const SITE_ROLES = ['own', 'competitor', 'bench'] as const;
/** Mere paths and hosts without a scheme are asked for by it. */
export const SITE_SCHEMES = ['https', 'http'] as const;
export type SiteRole = (typeof SITE_ROLES)[number];

const HOST = /^[a-z0-9-]+(\.[a-z0-9-]+)*(:\d{1,5})?$/;
const host = (name: string) =>
	v.pipe(
		v.string(`${name} is text.`),
		v.trim(),
		v.toLowerCase(),
		v.maxLength(253, `${name} has at most 253 characters.`),
		v.regex(HOST, `${name} is a host alone, for example shop.example.test.`)
	);
const hosts = (name: string) => v.optional(v.pipe(v.array(host(name)), v.maxLength(30, 'At most 30 hosts.')), []);

export const SiteInput = v.object(
	{
		name: v.pipe(
			v.string('Give the site a name.'),
			v.trim(),
			v.nonEmpty('Give the site a name.'),
			v.maxLength(120, 'A name has at most 120 characters.')
		),
		host: host('The host'),
		/** How its pages are asked for where an address does not say. */
		scheme: v.optional(v.picklist(SITE_SCHEMES, 'A site is asked by https or http.'), 'https'),
		role: v.picklist(SITE_ROLES, 'A site is the client’s own, a competitor or a bench.'),
		/** Other hosts that show the same site. */
		hosts: hosts('A host'),
		/** Hosts of other domains that serve its own files. */
		cdnHosts: hosts('A CDN host'),
		/** Where changes are seen before they are published; empty without. */
		previewHost: v.optional(
			v.union([v.literal(''), host('The preview host')], 'The preview host is a host alone.'),
			''
		),
		/** "user:password" of the preview; empty without. */
		previewAccess: v.optional(
			v.union(
				[v.literal(''), v.pipe(v.string(), v.regex(/^[^:\s]+:.+$/, 'Write the access as “user:password”.'))],
				'Write the access as “user:password”.'
			),
			''
		),
		place: v.optional(v.picklist(['', ...PLACES.map(({ id }) => id)], 'There is no such place.'), '')
	},
	'Send an object that describes the site.'
);
export type SiteInput = v.InferOutput<typeof SiteInput>;

/** "http://shop.example.test/" as people paste it: its host, and its scheme where it is said. */
export function hostTyped(text: string): { host: string; scheme?: SiteInput['scheme'] } {
	const found = /^(https?):\/\/([^/?#]*)/i.exec(text.trim());
	return found ? { host: found[2]!, scheme: found[1]!.toLowerCase() as SiteInput['scheme'] } : { host: text };
}

/** Where its addresses begin. */
export const originOf = ({ scheme, host }: Pick<SiteInput, 'scheme' | 'host'>): string => `${scheme}://${host}`;
