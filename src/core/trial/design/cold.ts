/** Cold visits: an arm that is loaded with the site's cache empty, and what that means for the mix of visits. */
import * as v from 'valibot';
import { isWebUrl } from '../../load/requests/address';

/** How the cache is made empty before each load of an arm. */
export const Cold = v.variant(
	'how',
	[
		/** A parameter of the address that no cache has seen. */
		v.object({
			how: v.literal('bust'),
			parameter: v.pipe(
				v.string('Name a parameter.'),
				v.regex(/^[\w-]{1,40}$/, 'A parameter has letters, digits, - and _ only.')
			)
		}),
		/** A call that empties the cache. */
		v.object({
			how: v.literal('purge'),
			method: v.picklist(['GET', 'POST', 'PURGE', 'DELETE'], 'The method is GET, POST, PURGE or DELETE.'),
			url: v.pipe(
				v.string('Write the address of the call.'),
				v.check((text) => URL.canParse(text) && isWebUrl(new URL(text)), 'This is not a web address.')
			)
		})
	],
	'The cache is emptied by “bust” or by “purge”.'
);
export type Cold = v.InferOutput<typeof Cold>;

/** "bust nocache", "purge POST https://…": as it is typed. @throws Error in words */
export function parseCold(text: string): Cold | null {
	const [how, first, second] = text.trim().split(/\s+/);
	if (!how) return null;
	const typed = how === 'bust' ? { how, parameter: first } : { how, method: first, url: second };
	const read = v.safeParse(Cold, typed);
	if (read.success) return read.output;
	throw new Error(
		`“${text.trim()}” cannot be read: write “bust nocache”, or “purge POST https://www.example.test/purge”.`
	);
}

export function coldLine(cold: Cold): string {
	return cold.how === 'bust' ? `bust ${cold.parameter}` : `purge ${cold.method} ${cold.url}`;
}

/** @param token that no load has had before */
export function bustedUrl(url: string, { parameter }: Extract<Cold, { how: 'bust' }>, token: string): string {
	const busted = new URL(url);
	busted.searchParams.set(parameter, token);
	return busted.href;
}

/**
 * Share of visits that find the cache empty, when they come at random (Poisson) and each cold one fills it for a while:
 * one cold visit, and as many warm ones as come within the life of the cache (renewal reward: 1 / (1 + rate x life)).
 * @param visitsPerHour to this page @param lifeMinutes how long a page stays in the cache
 */
export function coldShare(visitsPerHour: number, lifeMinutes: number): number {
	return 1 / (1 + (visitsPerHour * lifeMinutes) / 60);
}

/** The mean over cold and warm visits. */
export function weightedFigure(warm: number, cold: number, share: number): number {
	return share * cold + (1 - share) * warm;
}
