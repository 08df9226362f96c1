import { expect } from 'chai';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import * as v from 'valibot';
import { BUILT_IN_CONDITIONS, type Conditions } from '$core/load/conditions/conditions';
import { WatchInput } from '$core/watch/input';
import { insertScenario } from '../../src/lib/server/demo/clients';
import { findClientByName } from '../../src/lib/server/rooms/clients/queries/clients';
import { conditionsHash } from '../../src/lib/server/base/db/functions';
import { deleteConditions } from '../../src/lib/server/rooms/conditions/commands';
import { findConditions } from '../../src/lib/server/rooms/conditions/saved';
import { saveConditions } from '../../src/lib/server/rooms/conditions/queries/saved';
import { pageOffer } from '../../src/lib/server/rooms/watch/pageChoice';
import { cancelReading, requestReading } from '../../src/lib/server/rooms/watch/blocks';
import { changeWatch, createWatch } from '../../src/lib/server/rooms/watch/commands';
import { changedConditions, moveToPresentConditions } from '../../src/lib/server/rooms/watch/conditions';
import { existingWatch } from '../../src/lib/server/rooms/watch/watches';
import { listWatches } from '../../src/lib/server/rooms/watch/queries/watches';
import { openDatabase } from '../../src/lib/server/base/db/connection';
import { useQueue } from '../support/queue';
import { placeDatabase } from '../support/databases';

const PHONE = BUILT_IN_CONDITIONS.find(({ id }) => id === 'phone')!;
const wider: Conditions = { ...PHONE, device: { ...PHONE.device, width: 500 } };

describe('the conditions of a watch', () => {
	const q = useQueue();
	const world = () => {
		const { db } = q.now;
		insertScenario(db);
		const clientId = findClientByName(db, 'Skerry Line')!;
		const pages = [pageOffer(db, clientId, 'watch').usual[0]!.id];
		const input = {
			...v.parse(WatchInput, { clientId, name: 'Home', pages, conditions: ['phone'] }),
			kind: 'watch'
		} as const;
		return { db, input, id: createWatch(db, input) };
	};
	/** Widths under which a new reading is asked for. */
	const widths = (id: number) => {
		const { db } = q.now;
		requestReading(db, existingWatch(db, id, 'watch'), { why: 'demand' });
		const found = db
			.prepare(
				`SELECT DISTINCT body ->> '$.device.width' AS width FROM job
					JOIN conditions_version ON hash = "order" ->> '$.conditions.hash' WHERE job.status = 'queued'`
			)
			.pluck()
			.all();
		cancelReading(db, existingWatch(db, id, 'watch'));
		return found;
	};
	const changed = (id: number) => changedConditions(q.now.db, existingWatch(q.now.db, id, 'watch'));

	it('stay as they were when those of the workshop change, and are moved on demand', () => {
		const { db, id } = world();
		expect([widths(id), changed(id)]).to.deep.equal([[PHONE.device.width], []]);
		saveConditions(db, wider);
		expect(widths(id)).to.deep.equal([PHONE.device.width]);
		const [offer, ...others] = changed(id);
		expect(others).to.have.length(0);
		expect([offer!.name, offer!.before.slice(0, 9), offer!.now.slice(0, 9)]).to.deep.equal([
			'Phone',
			'384 × 810',
			'500 × 810'
		]);
		moveToPresentConditions(db, existingWatch(db, id, 'watch'));
		expect([widths(id), changed(id)]).to.deep.equal([[500], []]);
	});

	it('have the name that the same conditions have in a trial', () => {
		const { db, id } = world();
		requestReading(db, existingWatch(db, id, 'watch'), { why: 'demand' });
		const hashes = db.prepare(`SELECT DISTINCT "order" ->> '$.conditions.hash' FROM job WHERE status = 'queued'`);
		expect(hashes.pluck().all()).to.deep.equal([conditionsHash(findConditions(db, 'phone')!)]);
	});

	it('stay when its other settings change; those that come new are the present ones', () => {
		const { db, id, input } = world();
		saveConditions(db, wider);
		changeWatch(db, id, { ...input, name: 'Home page', conditions: ['phone', 'desktop'] });
		expect(widths(id)).to.have.members([PHONE.device.width, 1420]);
		changeWatch(db, id, { ...input, conditions: ['desktop'] });
		changeWatch(db, id, input);
		expect(widths(id)).to.deep.equal([500]);
	});

	it('stay when they are deleted in the workshop', () => {
		const { db, input } = world();
		saveConditions(db, { ...wider, id: 'kiosk', name: 'Kiosk' });
		const id = createWatch(db, { ...input, conditions: ['kiosk'] });
		deleteConditions(db, 'kiosk');
		expect([widths(id), changed(id)]).to.deep.equal([[500], []]);
	});

	it('are, in a folder of an earlier version, those that shipped with it', () => {
		const folder = mkdtempSync(join(tmpdir(), 'zafra-watched-'));
		placeDatabase(11, folder);
		const db = openDatabase(folder);
		const rows = db
			.prepare(
				`SELECT watch_conditions.id, body ->> '$.device.width' AS width FROM watch_conditions
					JOIN conditions_version USING (hash) ORDER BY watch_id, position`
			)
			.all() as { id: string; width: number }[];
		const watches = listWatches(db, 'watch', null).map((watch) => changedConditions(db, watch));
		db.close();
		rmSync(folder, { recursive: true });
		const shipped: Record<string, number> = { phone: 393, desktop: 1366 };
		expect(rows.length).to.be.above(0);
		// Offered: those that shipped; not what the analyst has written and left as it is.
		for (const changes of watches) for (const { id } of changes) expect(shipped).to.have.property(id);
		for (const { id, width } of rows) if (shipped[id]) expect(width, id).to.equal(shipped[id]);
	});
});
