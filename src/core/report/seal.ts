/**
 * What is signed of a bundle (Ed25519, RFC 8032): each file by its sum, so that a changed one can be named, and the
 * manifest whole, so that none can be left out.
 */
import type { Manifest } from './bundle';

type Named = Pick<Manifest['files'][number], 'name' | 'bytes' | 'sha256'>;
type Of = Pick<Manifest, 'title' | 'number' | 'frozenAt'>;

const bytesOf = (value: unknown) => new TextEncoder().encode(JSON.stringify(value));

/** One file of one version of one report: it cannot be moved to another. */
export function fileSeal({ title, number, frozenAt }: Of, { name, bytes, sha256 }: Named): Uint8Array {
	return bytesOf(['zafra-bundle-file', title, number, frozenAt, name, bytes, sha256]);
}

export function manifestSeal(manifest: Omit<Manifest, 'signature'>): Uint8Array {
	const { format, title, number, frozenAt, rules, zafra = null, drawing = null, key = null, files } = manifest;
	const named = files.map(({ name, bytes, sha256 }) => [name, bytes, sha256]);
	return bytesOf([
		'zafra-bundle',
		format,
		title,
		number,
		frozenAt,
		rules.judge,
		rules.recipe,
		zafra,
		drawing,
		key,
		named
	]);
}

/** How a key is written for people to compare: in groups of eight signs. */
export const keyInGroups = (key: string): string => key.match(/.{1,8}/g)?.join(' ') ?? '';
