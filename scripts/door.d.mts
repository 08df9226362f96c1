export interface Asked {
	method?: string;
	url?: string;
	headers: Record<string, string | undefined>;
	rawHeaders?: string[];
}
export type Ranges = readonly unknown[];

export function allowedHosts(host: string, port: number, origins?: string): Map<string, string>;
export function ownHost(port: number, origins?: string): string;
export function isVisit(url?: string): boolean;
export function refusal(request: Asked, allowed: Map<string, string>): { status: number; words: string } | null;
export function parseProxies(list?: string): Ranges;
export function senderOf(
	request: { socket: { remoteAddress?: string }; headers: Record<string, string | undefined> },
	proxies: Ranges
): string;
export const SENDER_HEADER: string;
export function straighten(
	request: Asked & { socket: { remoteAddress?: string } },
	place: { allowed: Map<string, string>; proxies: Ranges; own: string }
): void;
export function isOpenToOthers(host: string): boolean;
export const OPEN_WORDS: string;
