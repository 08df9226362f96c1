/** Profile folders of the lab's browsers, and what a lab that was killed left of them. */
import { chownSync, existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { rm } from 'node:fs/promises';
import { createHash } from 'node:crypto';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Account } from './account';

/** The browser's process id, beside its profile. */
const PID_FILE = 'zafra-browser.pid';

/** Profiles of one data folder share a label, so that its lab finds what an earlier one left. */
export function profileLabel(dataFolder: string): string {
	return createHash('sha256').update(dataFolder).digest('hex').slice(0, 10);
}

export function makeProfile(label: string, account: Account | null): string {
	const profile = mkdtempSync(join(tmpdir(), `zafra-lab-${label}-`));
	if (account) chownSync(profile, account.uid, account.gid);
	return profile;
}

export function notePid(profile: string, pid: number): void {
	writeFileSync(join(profile, PID_FILE), String(pid));
}

/** A profile in which somebody still writes is tried again so often. */
const MOST_REMOVALS = 5;

/** Chromium's helpers may still be writing for a moment after it has gone: whoever names the profile is ended first. */
export async function removeProfile(profile: string): Promise<void> {
	for (let i = 0; i < MOST_REMOVALS && existsSync(profile); i++) {
		// Against somebody who writes faster than the disk forgets, removing would not end.
		endBrowserOf(profile);
		await rm(profile, { recursive: true, force: true, maxRetries: 5, retryDelay: 100 }).catch(() => undefined);
	}
}

/**
 * End the browsers and remove the profiles that a killed lab left under a label. Only for the lab in charge.
 * @returns how many profiles there were
 */
export function sweepProfiles(label: string): number {
	const left = readdirSync(tmpdir()).filter((name) => name.startsWith(`zafra-lab-${label}-`));
	for (const name of left) {
		const profile = join(tmpdir(), name);
		endBrowserOf(profile);
		try {
			rmSync(profile, { recursive: true, force: true, maxRetries: 5, retryDelay: 100 });
		} catch {
			// Another account's folder stays: the next start of that account sweeps it.
		}
	}
	return left.length;
}

/**
 * Every process that names the profile, wherever the processes of this machine can be seen; else the noted one's
 * group.
 */
function endBrowserOf(profile: string): void {
	const file = join(profile, PID_FILE);
	if (!existsSync('/proc/self/cmdline')) {
		if (existsSync(file)) endGroup(Number(readFileSync(file, 'utf8')));
		return;
	}
	for (const pid of processesNaming(profile)) endGroup(pid);
}

function processesNaming(text: string): number[] {
	const names = readdirSync('/proc').filter((name) => /^\d+$/.test(name) && Number(name) !== process.pid);
	return names.map(Number).filter((pid) => {
		try {
			return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(text);
		} catch {
			return false;
		}
	});
}

/** The browser leads a process group of its own. */
export function endGroup(pid: number): void {
	for (const target of [-pid, pid])
		try {
			process.kill(target, 'SIGKILL');
			return;
		} catch {
			// Gone, or no leader of a group.
		}
}
