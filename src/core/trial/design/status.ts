/** The states of a trial. */

/** `waiting`: between stages; `paused`: by the analyst; `failed`: not one load succeeded. */
export type TrialStatus = 'draft' | 'queued' | 'running' | 'paused' | 'waiting' | 'done' | 'stopped' | 'failed';

/** Why a trial ended before its plan. */
export type EndReason = 'analyst' | 'disk-full' | 'no-load-succeeded';

/** As the API has always told it: a paused trial waits, and says beside it that it is paused. */
export function publicStatus(status: TrialStatus): Exclude<TrialStatus, 'paused'> {
	return status === 'paused' ? 'waiting' : status;
}

/** Whether loads may still come by themselves. */
export function isOpenStatus(status: TrialStatus): boolean {
	return status !== 'done' && status !== 'stopped' && status !== 'failed';
}
