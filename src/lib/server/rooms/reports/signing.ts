/** The agency's key, by which its clients know that a bundle is as it left the agency (Ed25519, RFC 8032). */
import { createPrivateKey, createPublicKey, generateKeyPairSync, sign, verify, type KeyObject } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

export interface SigningKey {
	/** Base64url. */
	publicKey: string;
	/** @returns the signature in base64url */
	sign(bytes: Uint8Array): string;
}

const FILE = 'signing-key.pem';
const OWNER_ALONE = 0o600;
const keys = new Map<string, SigningKey>();

/** Made when it is first needed; it lies beside the databases, and is part of no export. @param folder of the data */
export function signingKey(folder: string): SigningKey {
	let key = keys.get(folder);
	if (!key) keys.set(folder, (key = asSigningKey(readOrMake(join(folder, FILE)))));
	return key;
}

function readOrMake(file: string): KeyObject {
	const { privateKey } = generateKeyPairSync('ed25519');
	try {
		const made = privateKey.export({ type: 'pkcs8', format: 'pem' });
		writeFileSync(file, made, { flag: 'wx', mode: OWNER_ALONE });
		return privateKey;
	} catch (error) {
		if ((error as { code?: string }).code !== 'EEXIST') throw error;
		return createPrivateKey(readFileSync(file));
	}
}

const asSigningKey = (key: KeyObject): SigningKey => ({
	publicKey: createPublicKey(key).export({ format: 'jwk' }).x!,
	sign: (bytes) => sign(null, bytes, key).toString('base64url')
});

/** @param publicKey and signature in base64url */
export function isSignedBy(publicKey: string, bytes: Uint8Array, signature: string): boolean {
	try {
		const key = createPublicKey({ key: { kty: 'OKP', crv: 'Ed25519', x: publicKey }, format: 'jwk' });
		return verify(null, bytes, key, Buffer.from(signature, 'base64url'));
	} catch {
		return false;
	}
}
