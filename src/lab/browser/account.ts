/** The account under which Chromium runs: its sandbox does not work for root. */
import { execFileSync } from 'node:child_process';
import { accessSync, constants, readFileSync } from 'node:fs';

export interface Account {
	name: string;
	uid: number;
	gid: number;
}

/** Tried when nobody names one: it owns nothing on any system that has it. */
const USUAL_NAME = 'nobody';
const SETPRIV = '/usr/bin/setpriv';

/**
 * The unprivileged account for Chromium when the lab runs as root; null when the lab's own account does.
 * @throws Error in words when the account that was asked for cannot be had
 */
export function browserAccount(environment: NodeJS.ProcessEnv = process.env): Account | null {
	const wanted = environment.ZAFRA_LAB_USER;
	const isRoot = process.getuid?.() === 0;
	if (!isRoot) return null;
	if (wanted === 'root') return null;
	const account = canSwitch() ? findAccount(wanted || USUAL_NAME) : null;
	if (account || !wanted) return account;
	throw new Error(
		`ZAFRA_LAB_USER names “${wanted}”, which is no unprivileged account of this machine, or setpriv is missing.`
	);
}

/** The command that runs a program as an account: the process keeps its id and its open pipes. */
export function asAccount(account: Account, program: string): { command: string; before: string[] } {
	const privileges = [`--reuid=${account.uid}`, `--regid=${account.gid}`, '--clear-groups', '--inh-caps=-all'];
	return { command: SETPRIV, before: [...privileges, '--no-new-privs', program] };
}

function canSwitch(): boolean {
	try {
		accessSync(SETPRIV, constants.X_OK);
		return true;
	} catch {
		return false;
	}
}

function findAccount(name: string): Account | null {
	const line = accountLines(name).find((item) => item.startsWith(`${name}:`));
	const [, , uid, gid] = line?.split(':') ?? [];
	return Number(uid) > 0 ? { name, uid: Number(uid), gid: Number(gid) } : null;
}

/** `getent` knows accounts of a directory service too; the file is there where it is not. */
function accountLines(name: string): string[] {
	try {
		return execFileSync('getent', ['passwd', name], { encoding: 'utf8' }).split('\n');
	} catch {
		try {
			return readFileSync('/etc/passwd', 'utf8').split('\n');
		} catch {
			return [];
		}
	}
}
