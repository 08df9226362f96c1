import { expect } from 'chai';
import { BUILT_IN_CONDITIONS } from '$core/load/conditions/conditions';
import { CONTROL_HOST, CONTROL_URL } from '$core/watch/control';
import { serveControlPage } from '../../src/lab/controlPage';
import { Lab } from '../../src/lab/lab';
import { UNWATCHED } from '../support/world';

describe('the control page that ships', function () {
	this.timeout(120_000);

	it('is loaded by the lab from beside itself, with something to paint and something to work', async () => {
		const control = await serveControlPage('static/control');
		const lab = new Lab({ calm: UNWATCHED, hostMap: [control.rule] });
		const { record } = await lab.measure({ url: CONTROL_URL, conditions: BUILT_IN_CONDITIONS[0]!, steps: [] });
		const elsewhere = `http://${CONTROL_HOST}/api/clients`;
		const other = await lab.measure({ url: elsewhere, conditions: BUILT_IN_CONDITIONS[1]!, steps: [] });
		await lab.close();
		control.close();
		expect(record.status, record.failure?.message).to.equal('ok');
		expect(record.requests.map(({ url }) => new URL(url).pathname).sort()).to.deep.equal([
			'/control/control.css',
			'/control/control.js',
			'/control/field.svg',
			'/control/index.html'
		]);
		expect(record.figures.lcp).to.be.above(0);
		expect(record.figures.cls).to.equal(0);
		// Nothing but the page is there.
		expect(other.record.failure?.code).to.equal('http-status');
	});
});
