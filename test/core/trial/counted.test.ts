import { expect } from 'chai';
import { countedLoads, isTooBusy } from '$core/trial/judge/counted';

/** A load of arm `arm` in a round; `how` says how it went. */
let ids = 0;
const load = (arm: number, round: number, how: 'calm' | 'disturbed' | 'failed', extra: { warmup?: boolean } = {}) => ({
	id: ++ids,
	armId: arm,
	conditionId: 'phone',
	stage: 0,
	round,
	warmup: false,
	status: how === 'failed' ? ('failed' as const) : ('ok' as const),
	disturbed: how === 'disturbed',
	...extra
});

describe('loads that count', () => {
	it('are measured ones of calm moments: of a place the last, none of a place without', () => {
		const loads = [
			load(1, 1, 'disturbed'),
			load(1, 1, 'calm'),
			load(2, 1, 'failed'),
			load(2, 1, 'calm'),
			load(1, 2, 'disturbed'),
			load(2, 2, 'calm', { warmup: true })
		];
		expect(countedLoads({}, loads)).to.deep.equal([loads[1], loads[3]]);
	});

	it('are disturbed ones too, once a trial goes on with them, where a place has no calm one', () => {
		const loads = [load(1, 1, 'disturbed'), load(1, 1, 'calm'), load(1, 2, 'disturbed'), load(1, 2, 'disturbed')];
		expect(countedLoads({ countsDisturbed: true }, loads)).to.deep.equal([loads[1], loads[3]]);
	});
});

describe('a machine that is too busy', () => {
	const places = (twice: number, all: number) =>
		Array.from({ length: all }, (_, i) => {
			const first = load(1, i + 1, i < twice ? 'disturbed' : 'calm');
			return i < twice ? [first, load(1, i + 1, 'disturbed')] : [first];
		}).flat();

	it('disturbed a third of the places twice', () => {
		expect(isTooBusy(places(2, 6))).to.equal(true);
		expect(isTooBusy(places(2, 7))).to.equal(false);
		expect(isTooBusy(places(0, 20))).to.equal(false);
	});

	it('is not called so by a few loads, nor by warm-ups, nor by loads disturbed once', () => {
		expect(isTooBusy(places(5, 5))).to.equal(false);
		expect(isTooBusy(places(6, 6).map((place) => ({ ...place, warmup: true })))).to.equal(false);
		expect(isTooBusy(Array.from({ length: 12 }, (_, i) => load(1, i, 'disturbed')))).to.equal(false);
	});
});
