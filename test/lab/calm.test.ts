import { expect } from 'chai';
import { execFileSync, spawn } from 'node:child_process';
import {
	parseFrequencyMhz,
	parsePressureMs,
	parseProcessorTicks,
	parseProcessTicks,
	processTrees
} from '../../src/lab/calm/procStat';
import { LinuxSampler, PlainSampler } from '../../src/lab/calm/sampler';
import { browserAccount } from '../../src/lab/browser/account';
import { startProblem } from '../../src/lab/browser/startProblem';

const wait = (ms: number) => new Promise((next) => setTimeout(next, ms));
/** A process that burns processor time until it is killed. */
const burner = () => spawn(process.execPath, ['-e', 'for (;;);'], { stdio: 'ignore' });

describe('how busy the machine is', function () {
	this.timeout(20_000);

	// Fields in the order of proc(5): user nice system idle iowait irq softirq steal guest guest_nice.
	it('is read from /proc/stat: busy is all but idle, waiting and stolen', () => {
		expect(parseProcessorTicks('cpu  100 20 30 4000 50 6 7 80 0 0\ncpu0 1 2 3 4 5 6 7 8 0 0\n')).to.deep.equal({
			busy: 163,
			interrupts: 13,
			stolen: 80
		});
		expect(() => parseProcessorTicks('intr 1')).to.throw('/proc/stat');
	});

	it('knows parent, time and a stop of a process, whatever its name holds', () => {
		const rest = '1 7 7 0 -1 4194304 10 0 0 0 250 50 0 0 20 0 1 0 100 1000 10';
		expect(parseProcessTicks(`42 (a (b) c) S ${rest}`)).to.deep.equal({
			pid: 42,
			parent: 1,
			ticks: 300,
			stopped: false
		});
		expect(parseProcessTicks(`42 (x) T ${rest}`).stopped).to.equal(true);
	});

	// Documentation/accounting/psi.rst and proc(5) of Linux.
	it('reads pressure and clock where they are shown', () => {
		const pressure = 'some avg10=0.00 avg60=0.12 avg300=0.05 total=1234567\nfull avg10=0.00 avg60=0.00 total=9\n';
		expect(parsePressureMs(pressure)).to.equal(1234.567);
		expect(parsePressureMs('')).to.equal(null);
		expect(parseFrequencyMhz('processor\t: 0\ncpu MHz\t\t: 2400.000\nprocessor\t: 1\ncpu MHz\t\t: 2600.5\n')).to.equal(
			2500
		);
		expect(parseFrequencyMhz('processor\t: 0\n')).to.equal(null);
	});

	it('is known in part on other systems: how much was done, not by whom, nor what was stolen', async () => {
		const sampler = new PlainSampler();
		await wait(300);
		const sample = sampler.sample();
		expect(sample.spanMs).to.be.within(290, 2000);
		expect(sample.busyMs).to.be.at.least(0);
		expect(sample).to.include({ stolenMs: null, foreignMs: null, pressureMs: null, stopped: false });
	});

	it('tells work of the load from work of others, and sees what stands still', async () => {
		const [own, other] = [burner(), burner()];
		try {
			await wait(200);
			expect(processTrees([process.pid])).to.include.members([process.pid, own.pid]);
			const [ofOwn, ofBoth] = [new LinuxSampler([own.pid!]), new LinuxSampler([own.pid!, other.pid!])];
			await wait(1500);
			const [first, both] = [ofOwn.sample(), ofBoth.sample()];
			// The other burner is foreign to the first sampler and not to the second.
			expect(first.foreignMs! - both.foreignMs!).to.be.above(300);
			expect(both.stopped).to.equal(false);
			own.kill('SIGSTOP');
			await wait(200);
			expect(ofOwn.sample().stopped).to.equal(true);
		} finally {
			for (const child of [own, other]) child.kill('SIGKILL');
		}
	});
});

describe('the account of the browser', () => {
	it('is an unprivileged one when the lab runs as root, and none else; a name that is not there is told', () => {
		const isRoot = process.getuid?.() === 0;
		if (!isRoot) return void expect(browserAccount({ ZAFRA_LAB_USER: 'no-such-account' })).to.equal(null);
		expect(browserAccount({})!.uid).to.equal(Number(execFileSync('id', ['-u', 'nobody'], { encoding: 'utf8' })));
		expect(browserAccount({ ZAFRA_LAB_USER: 'root' })).to.equal(null);
		expect(() => browserAccount({ ZAFRA_LAB_USER: 'no-such-account' })).to.throw('no-such-account');
	});
});

describe('a browser that does not start', () => {
	it('is told by what stands in its way', () => {
		expect(startProblem('spawn /usr/bin/chromium EMFILE')).to.include('open no more files');
		expect(startProblem('Error: ENOSPC: no space left on device, write')).to.equal('the disk is full');
		expect(startProblem('chromium: error while loading shared libraries: libx.so')).to.include('library');
		expect(startProblem('Something else\nat line 3')).to.equal('Something else');
	});
});
