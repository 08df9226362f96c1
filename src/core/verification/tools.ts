/** What is verified, and with what the core has not itself. */
import type { ReportView } from '../report/view';

export type Files = ReadonlyMap<string, Uint8Array>;

/** Versions of what made a bundle that are not today's. */
export interface Rules {
	of: 'judge' | 'recipe' | 'drawing';
	version: string;
}

/** What the core has not itself. */
export interface Tools {
	/** Hexadecimal sum of bytes. */
	sha256(bytes: Uint8Array): string;
	/** Ed25519. @param key and signature in base64url */
	isSigned(key: string, bytes: Uint8Array, signature: string): boolean;
	/** The key that must have signed it; null where any may. */
	pinned: string | null;
	/** How reports are drawn here; null where they cannot be. */
	drawing: Drawing | null;
}

export interface Drawing {
	/** Names what draws: the sum of a sample. */
	version: string;
	/** The page of a report as one file. @param pictureOf bytes by key; null for none */
	draw(view: ReportView, key: string | null, pictureOf: (key: string) => Uint8Array | null): string;
}
