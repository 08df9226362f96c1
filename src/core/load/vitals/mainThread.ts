/** Whose work kept the main thread busy: long tasks split by the scripts that ran in them. Times in ms. */
import { ownerOf, type Owner } from '../requests/owners';
import type { LoadRecord, TaskRecord } from '../record/record';

/** Work without a script: layout, style, paint, parsing, or a script without an address. */
export const BROWSER_WORK: Owner = { id: 'browser', name: 'layout, paint and the rest', kind: 'own' };

export interface TaskShare {
	owner: Owner;
	/** The longest-running script of this owner in the task; empty for work without one. */
	url: string;
	durationMs: number;
}

export interface OwnedTask extends TaskRecord {
	/** Part beyond 50 ms, clipped to the window that counts for TBT. */
	blockingMs: number;
	/** Adds up to durationMs. */
	shares: TaskShare[];
}

type Evidence = Pick<LoadRecord, 'longTasks' | 'longFrames' | 'figures' | 'settledMs'>;

/**
 * Long tasks with the owners of their time. A task's time belongs to the scripts that the browser saw running within
 * it (Long Animation Frames); what no script covers is the browser's own work.
 * @param siteHost host of the page
 */
export function ownedTasks(evidence: Evidence, siteHost: string, cdnHosts: readonly string[] = []): OwnedTask[] {
	return tasksByOwner(evidence, (url) => ownerOfScript(url, siteHost, cdnHosts));
}

/** The same with owners of any kind. @param ownerOfUrl of a script by its address, which may be empty */
export function tasksByOwner(
	{ longTasks, longFrames, figures, settledMs }: Evidence,
	ownerOfUrl: (url: string) => Owner
): OwnedTask[] {
	const scripts = longFrames.flatMap((frame) => frame.scripts).sort((a, b) => a.startMs - b.startMs);
	const from = figures.fcp ?? Infinity;
	const to = settledMs ?? Infinity;
	return longTasks.map((task) => {
		const end = task.startMs + task.durationMs;
		const byOwner = new Map<string, TaskShare>();
		const longest = new Map<string, number>();
		// Entries can overlap by rounding: each moment is given away once.
		let taken = task.startMs;
		for (const script of scripts) {
			const start = Math.max(taken, script.startMs);
			const stop = Math.min(end, script.startMs + script.durationMs);
			if (stop <= start) continue;
			taken = stop;
			const owner = ownerOfUrl(script.url);
			const share = byOwner.get(owner.id) ?? { owner, url: script.url, durationMs: 0 };
			share.durationMs += stop - start;
			if (stop - start > (longest.get(owner.id) ?? 0)) {
				longest.set(owner.id, stop - start);
				share.url = script.url;
			}
			byOwner.set(owner.id, share);
		}
		const shares = [...byOwner.values()].sort((a, b) => b.durationMs - a.durationMs);
		const rest = task.durationMs - shares.reduce((sum, share) => sum + share.durationMs, 0);
		if (rest > 0) shares.push({ owner: BROWSER_WORK, url: '', durationMs: rest });
		const blockingMs = Math.max(0, Math.min(end, to) - Math.max(task.startMs, from) - 50);
		return { ...task, blockingMs, shares };
	});
}

function ownerOfScript(url: string, siteHost: string, cdnHosts: readonly string[]): Owner {
	try {
		const { host, protocol } = new URL(url);
		return protocol.startsWith('http') ? ownerOf(host, siteHost, cdnHosts) : BROWSER_WORK;
	} catch {
		return BROWSER_WORK;
	}
}

export interface OwnerTime {
	owner: Owner;
	/** Time in long tasks, and its part of the Total Blocking Time. */
	durationMs: number;
	blockingMs: number;
	tasks: number;
}

/** Time and blocking time by owner, most blocking first; a task's blocking time is shared as its duration is. */
export function timeByOwner(tasks: readonly OwnedTask[]): OwnerTime[] {
	const times = new Map<string, OwnerTime>();
	for (const task of tasks)
		for (const share of task.shares) {
			const time = times.get(share.owner.id) ?? { owner: share.owner, durationMs: 0, blockingMs: 0, tasks: 0 };
			time.durationMs += share.durationMs;
			time.blockingMs += task.durationMs > 0 ? (task.blockingMs * share.durationMs) / task.durationMs : 0;
			time.tasks++;
			times.set(share.owner.id, time);
		}
	return [...times.values()].sort((a, b) => b.blockingMs - a.blockingMs || b.durationMs - a.durationMs);
}
