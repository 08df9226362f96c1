/** A trial while it is being written: pure, but for the browser's store of drafts. */
import { FEWEST_CANDIDATES, hasPages, isSamePage, KINDS, TRIAL_KINDS } from '$core/trial/design/kinds';
import type { Setup } from '$core/trial/design/setup';
import type { Template } from '$core/trial/design/templates';
import type { TrialAim, TrialKind } from '$core/trial/types';
import { typedSetup } from '$lib/parts/setupDraft';
import type { TypedArm, TypedTrial } from '$lib/server/rooms/trials/form';

const NO_ARM: TypedArm = {
	name: '',
	url: '',
	page: '',
	setup: { components: [], features: '', effortHours: null },
	checks: '',
	cold: '',
	before: '',
	steps: ''
};

export const armDraft = (given: Partial<TypedArm> = {}): TypedArm => structuredClone({ ...NO_ARM, ...given });

/** One that does not exist was tampered with. */
export const kindOf = ({ kind }: Pick<TypedTrial, 'kind'>): TrialKind =>
	TRIAL_KINDS.find((own) => own === kind) ?? 'side-by-side';

/** What is asked: a kind that cannot be asked which is best is held against its baseline. */
export const aimOf = (draft: Pick<TypedTrial, 'kind' | 'aim'>): TrialAim =>
	KINDS[kindOf(draft)].aims.find((aim) => aim === draft.aim) ?? 'baseline';

/** Candidates enough for an aim. */
export function armsForAim(arms: readonly TypedArm[], aim: TrialAim): TypedArm[] {
	const missing = aim === 'best' ? Math.max(0, FEWEST_CANDIDATES - arms.length) : 0;
	return [
		...arms,
		...Array.from({ length: missing }, (_, i) => armDraft({ name: `Candidate ${arms.length + i + 1}` }))
	];
}

/** Arms as a kind wants them, with what was typed. */
export function armsForKind(arms: readonly TypedArm[], kind: TrialKind, template: Template): TypedArm[] {
	const typed = arms.filter((arm) => arm.url !== '');
	if (!typed.length) return template.arms.map(({ name, page = '' }) => armDraft({ name, page }));
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
	arms: readonly TypedArm[],
	at: number,
	urls: readonly string[],
	most: number
): TypedArm[] {
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
export const differsFrom = (draft: TypedTrial, start: TypedTrial): boolean =>
	JSON.stringify(draft) !== JSON.stringify(start);

/** A draft holds what its client wants: each client has its own. */
const storeOf = (clientId: number | null) =>
	clientId === null ? 'zafra-trial-draft' : `zafra-trial-draft-${clientId}`;

/** What was typed before, over what the form begins with; null without one, or without a store. */
export function storedDraft(clientId: number | null, start: TypedTrial): TypedTrial | null {
	try {
		const draft = JSON.parse(localStorage.getItem(storeOf(clientId)) ?? 'null') as Partial<TypedTrial> | null;
		if (!draft || !Array.isArray(draft.arms) || !draft.kind) return null;
		const arms = draft.arms.map((arm) => armDraft({ ...arm, setup: asTyped(arm.setup) }));
		return { ...start, ...draft, arms, baseline: String(draft.baseline ?? '0') };
	} catch {
		return null;
	}
}

/** A draft of an earlier release wrote its setups as they are stored. */
function asTyped(setup: TypedArm['setup'] | Setup | null | undefined): TypedArm['setup'] {
	if (!setup || !Array.isArray(setup.components)) return NO_ARM.setup;
	return typeof setup.features === 'string' ? (setup as TypedArm['setup']) : typedSetup(setup as Setup);
}

export function storeDraft(clientId: number | null, draft: TypedTrial | null): void {
	try {
		if (draft) localStorage.setItem(storeOf(clientId), JSON.stringify(draft));
		else localStorage.removeItem(storeOf(clientId));
	} catch {
		// A browser without a store has the page alone.
	}
}
