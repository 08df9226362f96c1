import { expect } from 'chai';
import { spawn } from 'node:child_process';
import { existsSync, readdirSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { makeProfile, removeProfile, sweepProfiles } from '../../src/lab/browser/profiles';

/** A helper of a browser that goes on writing into its profile, named on its command line as Chromium's are. */
const WRITER = `const fs = require('node:fs'); const folder = process.argv[1];
	setInterval(() => { fs.mkdirSync(folder + '/Default', { recursive: true }); fs.writeFileSync(folder + '/Default/' + Math.random(), 'x'); }, 1);`;

describe('profiles of browsers', function () {
	const label = `test${process.pid}`;
	const left = () => readdirSync(tmpdir()).filter((name) => name.startsWith(`zafra-lab-${label}-`));

	async function startWriter(profile: string) {
		const writer = spawn(process.execPath, ['-e', WRITER, profile], { stdio: 'ignore', detached: true });
		const ended = new Promise<void>((resolve) => writer.once('exit', () => resolve()));
		while (!existsSync(`${profile}/Default`)) await new Promise((next) => setTimeout(next, 20));
		return { ended };
	}

	it('are removed even while somebody writes into them: the writer is ended', async () => {
		const profile = makeProfile(label, null);
		const { ended } = await startWriter(profile);
		await removeProfile(profile);
		await ended;
		expect(left()).to.deep.equal([]);
	});

	it('that a killed lab left are swept with the processes that use them', async () => {
		const { ended } = await startWriter(makeProfile(label, null));
		makeProfile(label, null);
		expect(sweepProfiles(label)).to.equal(2);
		await ended;
		expect(left()).to.deep.equal([]);
	});
});
