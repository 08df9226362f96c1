import { expect } from 'chai';
import { pixelExcess } from '$core/load/requests/pictures';

describe('pixels of a picture', () => {
	const picture = (natural: number, shown: number) => ({
		naturalWidth: natural,
		naturalHeight: natural,
		shownWidth: shown,
		shownHeight: shown
	});

	it('are told against those of the screen, not against CSS pixels', () => {
		// Worked by hand: 900 px of the file over 300 CSS px is 9 for a screen of one pixel each, 2.25 for one of two.
		expect(pixelExcess(picture(900, 300), 1)).to.equal(9);
		expect(pixelExcess(picture(900, 300), 2)).to.equal(2.25);
		expect(pixelExcess(picture(600, 300), 3)).to.be.closeTo(4 / 9, 1e-12);
	});

	it('are unknown of what is not loaded or not shown', () => {
		expect(pixelExcess(picture(0, 300), 1)).to.equal(null);
		expect(pixelExcess(picture(900, 0), 1)).to.equal(null);
	});
});
