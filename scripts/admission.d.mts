import type { EventEmitter } from 'node:events';

export interface Limits {
	pagesAtOnce: number;
	longestTurnMs: number;
	pagesWaiting: number;
	longestWaitMs: number;
	beaconsAtOnce: number;
}
export interface Answering extends EventEmitter {
	writeHead(status: number, headers?: Record<string, string>): Answering;
	end(body?: string): unknown;
	destroyed?: boolean;
	closed?: boolean;
}
export interface Admission {
	connected(): void;
	page(response: Answering, work: () => void): void;
	beacon(response: Answering, work: () => void): void;
}
export const LIMITS: Limits;
export interface Clock {
	now(): number;
	after(ms: number, work: () => void): void;
}
export function createAdmission(limits?: Partial<Limits>, clock?: Clock): Admission;
export function turnOf(request: { method?: string; url?: string }, isVisit: boolean): 'page' | 'beacon' | 'none';
