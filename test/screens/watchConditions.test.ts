import { expect } from 'chai';
import { BUILT_IN_CONDITIONS } from '$core/load/conditions/conditions';
import { demoDb, press, screen } from '../support/svelte/screens';

const OFFER = 'Move to the present conditions';

describe('a watch whose conditions were changed in the workshop', function () {
	this.timeout(120_000);

	it('offers to be moved to them, says what that parts, and is moved by its button', async () => {
		const db = await demoDb();
		const { deleteConditions } = await import('../../src/lib/server/rooms/conditions/commands');
		const { saveConditions } = await import('../../src/lib/server/rooms/conditions/queries/saved');
		for (const path of ['/watch/1', '/standings/3']) {
			expect((await screen(path)).text, path).not.to.include(OFFER);
			const phone = BUILT_IN_CONDITIONS[0]!;
			saveConditions(db, { ...phone, network: { ...phone.network, roundTripMs: 180 } });
			const offered = await screen(path);
			expect(offered.text)
				.to.include(OFFER)
				.and.to.match(/are not compared: the history parts there/);
			expect(offered.text).to.match(/Phone: here 384 × 810.* 110 ms.*in the workshop 384 × 810.* 180 ms/);
			await press(path, new FormData(), 'move');
			expect((await screen(path)).text).not.to.include(OFFER);
			deleteConditions(db, phone.id);
			await press(path, new FormData(), 'move');
		}
	});
});
