/** What Linux tells of the machine's processors and processes (proc(5)); ticks of 10 ms. */
import { readdirSync, readFileSync } from 'node:fs';

export const TICK_MS = 10;

/** Ticks since the machine started, over all processors. */
export interface ProcessorTicks {
	busy: number;
	/** Of the busy ones, those for hardware: no process is charged with them. */
	interrupts: number;
	/** Wanted by this machine and given to another by the host. */
	stolen: number;
}

/** @param text of /proc/stat @throws Error when it is not of that form */
export function parseProcessorTicks(text: string): ProcessorTicks {
	const line = /^cpu +([\d ]+)$/m.exec(text);
	if (!line) throw new Error('/proc/stat has no line for all processors.');
	const [user = 0, nice = 0, system = 0, , , irq = 0, softIrq = 0, stolen = 0] = line[1]!.split(' ').map(Number);
	const interrupts = irq + softIrq;
	return { busy: user + nice + system + interrupts, interrupts, stolen };
}

export interface ProcessTicks {
	pid: number;
	parent: number;
	ticks: number;
	/** Somebody stopped it (SIGSTOP, a debugger). */
	stopped: boolean;
}

/** @param text of /proc/PID/stat; the name in brackets may hold anything, brackets and blanks too */
export function parseProcessTicks(text: string): ProcessTicks {
	const pid = Number.parseInt(text, 10);
	const fields = text.slice(text.lastIndexOf(')') + 2).split(' ');
	const stopped = fields[0] === 'T' || fields[0] === 't';
	return { pid, parent: Number(fields[1]), ticks: Number(fields[11]) + Number(fields[12]), stopped };
}

export function readProcessorTicks(): ProcessorTicks {
	return parseProcessorTicks(readFileSync('/proc/stat', 'utf8'));
}

/** Null when the process has gone. */
export function readProcessTicks(pid: number): ProcessTicks | null {
	try {
		return parseProcessTicks(readFileSync(`/proc/${pid}/stat`, 'utf8'));
	} catch {
		return null;
	}
}

/** @param text of /proc/pressure/cpu @returns ms since the start in which something waited; null in another form */
export function parsePressureMs(text: string): number | null {
	const found = /^some .*total=(\d+)/m.exec(text);
	return found ? Number(found[1]) / 1000 : null;
}

/** Null where the kernel does not show it. */
export function readPressureMs(): number | null {
	try {
		return parsePressureMs(readFileSync('/proc/pressure/cpu', 'utf8'));
	} catch {
		return null;
	}
}

/** @param text of /proc/cpuinfo @returns mean clock of the processors, MHz; null where it is not shown */
export function parseFrequencyMhz(text: string): number | null {
	const clocks = [...text.matchAll(/^cpu MHz\s*: ([\d.]+)$/gm)].map(([, clock]) => Number(clock));
	return clocks.length ? Math.round(clocks.reduce((sum, clock) => sum + clock, 0) / clocks.length) : null;
}

export function readFrequencyMhz(): number | null {
	try {
		return parseFrequencyMhz(readFileSync('/proc/cpuinfo', 'utf8'));
	} catch {
		return null;
	}
}

/** The processes with these ids and all that descend from them. */
export function processTrees(roots: readonly number[]): number[] {
	const all = readdirSync('/proc').filter((name) => /^\d+$/.test(name));
	const alive = all.map((name) => readProcessTicks(Number(name))).filter((item) => item !== null);
	const inside = new Set(roots);
	// Parents are older than their children, but ids may have wrapped: repeat until nothing is added.
	for (let before = -1; before !== inside.size;) {
		before = inside.size;
		for (const { pid, parent } of alive) if (inside.has(parent)) inside.add(pid);
	}
	return [...inside];
}
