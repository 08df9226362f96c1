/** A trial while it is being written: pure, but for the browser's store of drafts. */
import { hasPages, isSamePage } from '$core/trial/design/kinds';
import type { Setup } from '$core/trial/design/setup';
import type { Template } from '$core/trial/design/templates';
import type { TrialKind } from '$core/trial/types';

export interface ArmDraft {
	key: number;
	name: string;
	url: string;
	page: string;
	setup: Setup | null;
	/** One a line, as typed. */
	checks: string;
	/** How its cache is emptied, as typed. */
	cold: string;
	/** Id of the visitor's state; empty for an anonymous one. */
	before: string;
}

export interface TrialDraft {
	kind: TrialKind;
	question: string;
	arms: ArmDraft[];
	/** Place of the baseline among the arms. */
	baseline: number;
	conditions: string[];
	primary: string[];
	adaptive: boolean;
	rounds: number | null;
	warmups: number | null;
	settle: boolean;
	settleWithinS: number | null;
	referenceUrl: string;
	steps: string;
	/** One a line, as typed. */
	mustSend: string;
	/** Whether the client's own margins and targets hold; the house's if not. */
	ownLimits: boolean;
	/** What comes late is checked at the end. */
	lateLoads: boolean;
	/** The change is taken back in the last stage. */
	takesBack: boolean;
	notBefore: string;
	spreadMinutes: number | null;
}

let key = 0;

const NO_ARM = { name: '', url: '', page: '', setup: null, checks: '', cold: '', before: '' };

export function armDraft(given: Partial<Omit<ArmDraft, 'key'>> = {}): ArmDraft {
	return { ...NO_ARM, ...given, key: key++ };
}

/** What came back of a form that was tampered with is shown without its setup. */
function isSetup(setup: unknown): setup is Setup {
	return Array.isArray((setup as Setup | null)?.components);
}

const USUAL_ROUNDS = 12;
const USUAL_WAIT_S = 60;

/** @param mustSend as the client keeps them, one a line */
export function draftOf(template: Template, conditions: string[], primary: string[], mustSend = ''): TrialDraft {
	return {
		kind: template.kind,
		question: template.id === 'candidates' ? '' : template.question,
		arms: template.arms.map(({ name, page }) => armDraft({ name, page })),
		baseline: 0,
		conditions,
		primary,
		adaptive: template.adaptive,
		rounds: template.adaptive ? USUAL_ROUNDS : template.rounds,
		warmups: 1,
		settle: template.settleWithinS !== null,
		settleWithinS: template.settleWithinS ?? USUAL_WAIT_S,
		referenceUrl: '',
		steps: '',
		mustSend,
		ownLimits: true,
		lateLoads: true,
		takesBack: false,
		notBefore: '',
		spreadMinutes: null
	};
}

/** What the server was sent and did not take. */
export interface SentTrial {
	kind: string;
	question: string;
	arms: {
		name: string;
		url: string;
		page: string | null;
		baseline: boolean;
		setup: unknown;
		checks?: string;
		cold?: string;
		before?: string;
	}[];
	conditions: string[];
	primary: string[];
	adaptive: boolean;
	rounds: number;
	warmups: number;
	settleWithinS: number | null;
	referenceUrl?: string;
	steps: string;
	mustSend?: string;
	ownLimits?: boolean;
	lateLoads: boolean;
	returnStage?: number | null;
	notBefore: string | null;
	spreadMinutes: number | null;
}

const finite = (value: number | null) => (value !== null && Number.isFinite(value) ? value : null);

/** @param usual for what was tampered with */
export function draftOfSent(
	sent: SentTrial,
	usual: TrialDraft,
	isKind: (kind: string) => kind is TrialKind
): TrialDraft {
	return {
		kind: isKind(sent.kind) ? sent.kind : usual.kind,
		question: sent.question,
		arms: sent.arms.map(({ name, url, page, setup, checks = '', cold = '', before = '' }) =>
			armDraft({ name, url, page: page ?? '', setup: isSetup(setup) ? setup : null, checks, cold, before })
		),
		baseline: Math.max(
			0,
			sent.arms.findIndex((arm) => arm.baseline)
		),
		conditions: sent.conditions,
		primary: sent.primary,
		adaptive: sent.adaptive,
		rounds: finite(sent.rounds),
		warmups: finite(sent.warmups),
		settle: sent.settleWithinS !== null,
		settleWithinS: finite(sent.settleWithinS) ?? USUAL_WAIT_S,
		referenceUrl: sent.referenceUrl ?? '',
		steps: sent.steps,
		mustSend: sent.mustSend ?? '',
		ownLimits: sent.ownLimits ?? true,
		lateLoads: sent.lateLoads,
		takesBack: sent.returnStage != null,
		notBefore: sent.notBefore ?? '',
		spreadMinutes: finite(sent.spreadMinutes)
	};
}

/** Arms as a kind wants them, with what was typed. */
export function armsForKind(arms: readonly ArmDraft[], kind: TrialKind, template: Template): ArmDraft[] {
	const typed = arms.filter((arm) => arm.url !== '');
	// Those that are there stay what they are: the page need not be drawn anew.
	if (!typed.length)
		return template.arms.map(({ name, page }, i) => ({
			...armDraft({ name, page }),
			...(arms[i] && { key: arms[i].key })
		}));
	if (isSamePage(kind)) return typed.slice(0, 1);
	const enough = arms.length < 2 ? [...arms, armDraft({ name: 'Candidate' })] : [...arms];
	return hasPages(kind) && enough.length % 2 ? [...enough, armDraft({ name: 'With' })] : enough;
}

/** Addresses in pasted text: one a line, or parted by spaces, commas or semicolons. */
export function addressesIn(text: string): string[] {
	return text
		.split(/[\s,;]+/)
		.filter((word) => /^https?:\/\/\S+$/i.test(word) || /^[\w-]+(\.[\w-]+)+(\/\S*)?$/.test(word))
		.map((word) => (/^https?:/i.test(word) ? word : `https://${word}`));
}

/** "skerry-line.test/fares": what a pasted address is called until somebody names it. */
export function nameOfAddress(url: string): string {
	return url
		.replace(/^https?:\/\/(www\.)?/i, '')
		.replace(/\/$/, '')
		.slice(0, 80);
}

/** Several addresses, from an arm on: those that follow are filled and added. */
export function pasteAddresses(
	arms: readonly ArmDraft[],
	at: number,
	urls: readonly string[],
	most: number
): ArmDraft[] {
	const next = [...arms];
	urls.forEach((url, i) => {
		const place = at + i;
		if (place >= most) return;
		const arm = next[place];
		next[place] = arm
			? { ...arm, url, name: arm.name || nameOfAddress(url) }
			: armDraft({ name: nameOfAddress(url), url });
	});
	return next;
}

/** Whether anything was typed or chosen, beside what the form began with. */
export function differsFrom(draft: TrialDraft, start: TrialDraft): boolean {
	const textOf = ({ arms, ...rest }: TrialDraft) =>
		JSON.stringify([rest, arms.map(({ name, url, page, setup }) => [name, url, page, setup])]);
	return textOf(draft) !== textOf(start);
}

/** A draft holds what its client wants: each client has its own. */
const storeOf = (clientId: number | null) =>
	clientId === null ? 'zafra-trial-draft' : `zafra-trial-draft-${clientId}`;

/** Null without one, or without a store. */
export function storedDraft(clientId: number | null): TrialDraft | null {
	try {
		const draft = JSON.parse(localStorage.getItem(storeOf(clientId)) ?? 'null') as TrialDraft | null;
		if (!draft || !Array.isArray(draft.arms) || !draft.kind) return null;
		const { lateLoads = true, takesBack = false, mustSend = '', ownLimits = true, arms } = draft;
		return {
			...draft,
			lateLoads,
			takesBack,
			mustSend,
			ownLimits,
			arms: arms.map((arm) => armDraft(arm))
		};
	} catch {
		return null;
	}
}

export function storeDraft(clientId: number | null, draft: TrialDraft | null): void {
	try {
		if (draft) localStorage.setItem(storeOf(clientId), JSON.stringify(draft));
		else localStorage.removeItem(storeOf(clientId));
	} catch {
		// A browser without a store has the page alone.
	}
}
