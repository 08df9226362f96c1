import { expect } from 'chai';
import { calmHours, recentSpeeds, saveQuietMinute } from '../../src/lib/server/rooms/labs/queries/calmRows';
import { labSheet } from '../../src/lib/server/desk/labSheet';
import { readSettings } from '../../src/lib/server/base/settings';
import { QuietWatch } from '../../src/lib/server/runner/quietWatch';
import { CALM_LIMITS } from '$core/load/vitals/calm';
import { disturbedLoad, useQueue } from '../support/queue';
import { recordOf } from '../support/records';

const NOW = Date.parse('2026-11-27T12:30:00.000Z');
const minutesAgo = (minutes: number) => new Date(NOW - minutes * 60_000).toISOString();

describe('the sheet of the lab', () => {
	const q = useQueue();
	const loads = (count: number, isDisturbed: (i: number) => boolean) => {
		q.now.make({ rounds: count, primary: ['lcp'] });
		for (let i = 0; i < count; i++)
			q.now.finish(q.now.lease()!, { startedAt: minutesAgo(20), ...(isDisturbed(i) ? disturbedLoad() : {}) });
	};

	it('counts loads, disturbed ones and quiet minutes by the hour, of the last day only', () => {
		loads(4, (i) => i === 0);
		saveQuietMinute(q.now.db, minutesAgo(80), 0.04);
		saveQuietMinute(q.now.db, minutesAgo(81), 0.02);
		saveQuietMinute(q.now.db, minutesAgo(26 * 60), 0.5);
		const { hours, day } = labSheet(q.now.db, NOW);
		expect(hours).to.have.length(24);
		expect(day).to.deep.equal({ loads: 4, disturbed: 1 });
		expect(hours.at(-1)).to.include({ hour: '2026-11-27T12', loads: 4, disturbed: 1 });
		expect(hours[0]!.hour).to.equal('2026-11-26T13');
		expect(hours.filter(({ share }) => share === 0.5)).to.deep.equal([]);
		expect(calmHours(q.now.db, '2026-11-27T10:00').map(({ share }) => share)).to.deep.include(0.03);
	});

	it('forgets quiet minutes after two days', () => {
		saveQuietMinute(q.now.db, minutesAgo(3 * 1440), 0.1);
		saveQuietMinute(q.now.db, minutesAgo(0), null);
		expect(q.now.value<number>('SELECT count(*) FROM quiet_minute')).to.equal(1);
	});

	it('knows no noise floor before one was measured, and calls a machine busy that disturbs a third of its loads', () => {
		expect(labSheet(q.now.db, NOW).fitness.code).to.equal('unknown');
		loads(6, (i) => i < 2);
		expect(labSheet(q.now.db, NOW).fitness).to.deep.equal({
			code: 'busy',
			words: 'This machine is too busy: 2 of 6 loads of the last day were disturbed.'
		});
	});

	it('shows the newest speeds, oldest first', () => {
		q.now.make({ rounds: 2 });
		const { environment } = recordOf();
		for (const speed of [100, 200, 300])
			q.now.finish(q.now.lease()!, {
				startedAt: minutesAgo(60 - speed / 10),
				environment: { ...environment, machineSpeed: { before: speed, after: null } }
			});
		expect(recentSpeeds(q.now.db, 2).map(({ speed }) => speed)).to.deep.equal([200, 300]);
	});
});

describe('the watch over a machine that measures nothing', () => {
	it('tells of whole minutes alone, and begins anew after a load', () => {
		const watch = new QuietWatch([process.pid]);
		expect(watch.look(), 'the first look only begins').to.equal(undefined);
		expect(watch.look()).to.equal(undefined);
		watch.stop();
		expect(watch.look()).to.equal(undefined);
	});
});

describe('settings of calm', () => {
	const read = (environment: NodeJS.ProcessEnv) => readSettings(environment).calm;

	it('are the house’s unless named, and refused in words when they cannot be read', () => {
		expect(read({})).to.deep.equal(CALM_LIMITS);
		expect(
			read({ ZAFRA_CALM_SHARE: '0.2', ZAFRA_CALM_BURST: '0.5', ZAFRA_CALM_WAIT: '5', ZAFRA_CALM_REST: '0' })
		).to.deep.equal({ share: 0.2, burst: 0.5, waitMs: 5000, restMs: 0 });
		expect(() => read({ ZAFRA_CALM_SHARE: '10' })).to.throw('ZAFRA_CALM_SHARE must be a share');
		expect(() => read({ ZAFRA_CALM_WAIT: 'long' })).to.throw('ZAFRA_CALM_WAIT must be a number of seconds');
	});
});
