/**
 * Moves the clock of a process, and of those that it starts, by `ZAFRA_CLOCK_DAYS`: the whole suite has to pass on any
 * day. `NODE_OPTIONS="--import ./test/support/shiftedClock.mjs" ZAFRA_CLOCK_DAYS=400 npm test`
 */
const DAY_MS = 86_400_000;
const shiftMs = Number(process.env.ZAFRA_CLOCK_DAYS || 0) * DAY_MS;
const RealDate = Date;

if (shiftMs)
	globalThis.Date = class Date extends RealDate {
		constructor(...args) {
			if (args.length) super(...args);
			else super(RealDate.now() + shiftMs);
		}
		static now() {
			return RealDate.now() + shiftMs;
		}
	};
