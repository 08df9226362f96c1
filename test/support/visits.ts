/** Page views as the visits' script sends them. */
import type { Beacon, Visit } from '$core/field/visit';

let drawn = 0;

export function aVisit(changes: Partial<Visit> = {}): Visit {
	return {
		id: `view-${String(++drawn).padStart(6, '0')}`,
		sending: 1,
		path: '/timetable',
		navigation: 'navigate',
		ageMs: 12_000,
		metrics: { lcp: 2100, inp: 120, cls: 0.03, fcp: 1400, ttfb: 500 },
		origins: {},
		timings: {},
		goals: [],
		...changes
	};
}

export function aBeacon(visits: Visit[] = [aVisit()], changes: Partial<Beacon> = {}): Beacon {
	return { key: 'k', token: 't', device: 'phone', network: '4g', automated: false, visits, ...changes };
}
