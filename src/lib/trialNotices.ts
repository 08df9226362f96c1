/** Which trials came to rest between two looks at them: pure. */

export interface FollowedTrial {
	id: number;
	status: string;
}

export interface TrialNotice {
	id: number;
	kind: 'success' | 'error' | 'info';
	title: string;
}

const RESTING: Record<string, Pick<TrialNotice, 'kind' | 'title'>> = {
	done: { kind: 'success', title: 'A trial is done' },
	failed: { kind: 'error', title: 'A trial failed' },
	waiting: { kind: 'info', title: 'A trial waits for you' }
};

/** @param before null at the first look: what rested by then is no news */
export function newlyRested(before: readonly FollowedTrial[] | null, now: readonly FollowedTrial[]): TrialNotice[] {
	return now.flatMap(({ id, status }) => {
		const was = before?.find((trial) => trial.id === id)?.status;
		const wasMoving = was === 'running' || was === 'queued';
		return wasMoving && status !== was && RESTING[status] ? [{ id, ...RESTING[status] }] : [];
	});
}
