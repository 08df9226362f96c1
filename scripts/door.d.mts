export function allowedHosts(host: string, port: number, origins?: string): Set<string>;
export function refusal(
	request: { method?: string; headers: Record<string, string | undefined> },
	allowed: Set<string>
): { status: number; words: string } | null;
export function isOpenToOthers(host: string): boolean;
export const OPEN_WORDS: string;
