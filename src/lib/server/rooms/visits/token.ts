/** Scripts carry a token of the day on which they were handed out: beacons that somebody kept for later are old. */
import { createHmac } from 'node:crypto';
import { RAW_DAYS } from '$core/field/visitSettings';
import { DAY_MS } from './queries/store';

const SIGNATURE = 12;

export function tokenOf(secret: string, key: string, now: number): string {
	return signed(secret, key, Math.floor(now / DAY_MS));
}

/** Good for as long as single page views are known by their id, and one day of a tab left open. */
export function isGoodToken(token: string, secret: string, key: string, now: number): boolean {
	const day = parseInt(token.split('.')[0] ?? '', 36);
	const today = Math.floor(now / DAY_MS);
	return day <= today && today - day < RAW_DAYS && token === signed(secret, key, day);
}

function signed(secret: string, key: string, day: number): string {
	const signature = createHmac('sha256', secret).update(`${key}/${day}`).digest('base64url');
	return `${day.toString(36)}.${signature.slice(0, SIGNATURE)}`;
}
