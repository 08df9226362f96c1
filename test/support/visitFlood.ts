/** A process that takes beacons without end and tells its parent which page views it acknowledged: to be killed. */
import { openDatabase } from '../../src/lib/server/base/db/connection';
import { VisitDoor } from '../../src/lib/server/rooms/visits/accept';
import { openVisits } from '../../src/lib/server/rooms/visits/store';
import { secretOf } from '../../src/lib/server/rooms/visits/queries/store';
import { tokenOf } from '../../src/lib/server/rooms/visits/token';
import { VisitWriter } from '../../src/lib/server/rooms/visits/writer';
import { aBeacon, aVisit } from './visits';

const [folder = '', key = ''] = process.argv.slice(2);
const visits = openVisits(folder);
const door = new VisitDoor(openDatabase(folder), visits, new VisitWriter(visits), Infinity);
const AGENT = 'Mozilla/5.0 (Linux; Android 14) AppleWebKit/537.36 Chrome/156.0.0.0 Mobile Safari/537.36';

async function send(id: string, address: string): Promise<void> {
	const now = Date.now();
	const visit = aVisit({ id, metrics: { lcp: 500 + (now % 4000), cls: 0.01 } });
	const beacon = aBeacon([visit], { key, token: tokenOf(secretOf(visits), key, now) });
	const ask = { body: JSON.stringify(beacon), origin: 'https://skerry-line.test', userAgent: AGENT, address, now };
	const { status } = await door.take(ask);
	if (status === 204) process.send!([id]);
}

for (let i = 0; ; i += 20)
	await Promise.all(
		Array.from({ length: 20 }, (_, j) =>
			send(`flood-${String(i + j).padStart(8, '0')}`, `10.${(i >> 16) & 255}.${(i >> 8) & 255}.${j}`)
		)
	);
