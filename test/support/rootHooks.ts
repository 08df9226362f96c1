/** For every test: a failed one says what was on screen, since nobody can look at it afterwards. */
import { describeScreens } from './screen';

export const mochaHooks = {
	async afterEach(this: Mocha.Context) {
		if (this.currentTest?.state === 'failed') console.error(await describeScreens());
	}
};
