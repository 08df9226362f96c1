import { expect } from 'chai';
import { execFile, spawn } from 'node:child_process';
import { existsSync } from 'node:fs';
import { setTimeout as pause } from 'node:timers/promises';

/** How a process ends that the watchdog looks after. */
function endOf(what: string): Promise<{ code: number | null; signal: string | null; words: string }> {
	const child = spawn(process.execPath, ['--import', 'tsx', 'test/support/watched.ts', what]);
	let words = '';
	child.stderr.on('data', (chunk: Buffer) => (words += chunk.toString()));
	return new Promise((resolve) => child.once('close', (code, signal) => resolve({ code, signal, words })));
}

describe('the watchdog of the lab', function () {
	this.timeout(60_000);

	it('ends a lab whose loop hangs, whatever it is doing', async () => {
		const { signal, words } = await endOf('silent');
		expect(signal).to.equal('SIGKILL');
		expect(words).to.include('its loop has been silent');
	});

	it('ends a lab whose job does not end although its loop turns', async () => {
		const { signal, words } = await endOf('late');
		expect(signal).to.equal('SIGKILL');
		expect(words).to.include('its job does not end');
	});

	it('leaves one alone that lives', async () => {
		expect(await endOf('alive')).to.deep.include({ code: 7, signal: null });
	});

	it('ends a lab in an endless loop whose web has gone', async () => {
		const pid = await new Promise<number>((resolve) => {
			execFile(process.execPath, ['--import', 'tsx', 'test/support/parentOf.ts'], (_error, out) =>
				resolve(Number(out))
			);
		});
		expect(pid).to.be.above(0);
		for (let tries = 0; tries < 60 && existsSync(`/proc/${pid}`); tries++) await pause(100);
		expect(existsSync(`/proc/${pid}`)).to.equal(false);
	});
});
