/** Processes of this machine, as `ps` (procps) lists them. */
import { execFileSync } from 'node:child_process';

interface ProcessRow {
	pid: number;
	ppid: number;
	args: string;
}

function allProcesses(): ProcessRow[] {
	return execFileSync('ps', ['-eo', 'pid,ppid,args'])
		.toString()
		.split('\n')
		.slice(1)
		.map((line) => /^\s*(\d+)\s+(\d+)\s+(.*)$/.exec(line))
		.filter((match) => match !== null)
		.map(([, pid, ppid, args]) => ({ pid: Number(pid), ppid: Number(ppid), args: args! }));
}

/** Ids of the processes below another one. */
export function childrenOf(pid: number, pattern = /./): number[] {
	const rows = allProcesses();
	const below = new Set([pid]);
	for (let grown = true; grown;) {
		grown = false;
		for (const row of rows) if (below.has(row.ppid) && !below.has(row.pid)) grown = Boolean(below.add(row.pid));
	}
	return rows.filter((row) => row.pid !== pid && below.has(row.pid) && pattern.test(row.args)).map((row) => row.pid);
}

/** Ids of the processes below this one whose command line fits. */
export function processes(pattern: RegExp): number[] {
	return childrenOf(process.pid, pattern);
}
