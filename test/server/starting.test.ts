import { expect } from 'chai';
import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { freePort, until } from '../support/world';

describe('starting', () => {
	/** What a start says that must not succeed. */
	async function words(environment: NodeJS.ProcessEnv, folder: string): Promise<string> {
		const child = spawn(process.execPath, ['scripts/serve.mjs'], {
			env: { ...process.env, PORT: String(await freePort()), ZAFRA_DATA: folder, ZAFRA_RUNNER: 'off', ...environment },
			stdio: ['ignore', 'pipe', 'pipe']
		});
		let said = '';
		for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk: Buffer) => (said += chunk.toString()));
		await until(() => child.exitCode !== null, 20_000, 'the app to give up').catch((error: Error) => {
			child.kill('SIGKILL');
			throw error;
		});
		expect(child.exitCode).to.equal(1);
		return said;
	}

	it('is refused on an address that others reach, unless that is meant', async () => {
		const folder = mkdtempSync(join(tmpdir(), 'zafra-start-'));
		expect(await words({ HOST: '0.0.0.0' }, folder))
			.to.include('ZAFRA_OPEN=yes')
			.and.include('Anybody');
		rmSync(folder, { recursive: true });
	});

	it('says what is wrong with a database that is damaged, and leaves it as it is', async () => {
		const folder = mkdtempSync(join(tmpdir(), 'zafra-start-'));
		writeFileSync(join(folder, 'zafra.db'), 'this is no database '.repeat(500));
		const said = await words({}, folder);
		expect(said).to.include('is damaged').and.include('ZAFRA_DATA').and.not.include('    at ');
		rmSync(folder, { recursive: true });
	});
});
