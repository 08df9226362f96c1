/** What happened to the demonstration's sites in the year that its histories show: invented, as all of it. */
import type { MarkerInput } from '../rooms/field/view';

export interface HistoryState {
	/** Week of the year of the history, from 0. */
	fromWeek: number;
	/** As it was recorded. */
	state: string;
	marker?: Pick<MarkerInput, 'kind' | 'words'>;
}

export const HISTORY_STATES: readonly { host: string; states: readonly HistoryState[] }[] = [
	{
		host: 'skerry-line.test',
		states: [
			{ fromWeek: 0, state: 'plain' },
			{ fromWeek: 12, state: 'chat', marker: { kind: 'plugin', words: 'Parlour Bell, the chat, on every page' } },
			{ fromWeek: 32, state: 'larder', marker: { kind: 'plugin', words: 'Larder: page cache and file squeezing' } },
			// Nobody was told: an update of the optimiser switched half of it off.
			{ fromWeek: 49, state: 'decayed' }
		]
	},
	{
		host: 'northsound-crossings.test',
		states: [
			{ fromWeek: 0, state: 'plain' },
			{ fromWeek: 46, state: 'faster' }
		]
	},
	{ host: 'puffin-ferries.test', states: [{ fromWeek: 0, state: 'plain' }] }
];

export const HISTORY_WATCH = {
	client: 'Skerry Line',
	name: 'Pages that bring bookings',
	host: 'skerry-line.test',
	paths: ['/', '/timetable', '/booking'],
	/** The first reading comes in the week after. */
	firstDay: '2025-12-01T00:00:00Z',
	/** The lab was off for two weeks. */
	missedWeeks: [27, 28],
	browserWeek: 22,
	browsers: ['Chromium 140.0.7339.80', 'Chromium 141.0.7390.54']
};

const FERRIES = ['skerry-line.test', 'northsound-crossings.test', 'puffin-ferries.test'];

export const HISTORY_STANDINGS = [
	{ name: 'Home pages of the ferry companies', path: '/', hosts: FERRIES },
	{ name: 'Timetables of the ferry companies', path: '/timetable', hosts: FERRIES },
	{ name: 'Booking pages of the ferry companies', path: '/booking', hosts: FERRIES }
];
