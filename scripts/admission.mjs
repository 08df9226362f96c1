/**
 * What web takes on at once. Beacons of visitors go first; pages are answered a few at a time, first come first served;
 * who would wait too long is told so at once (503 with Retry-After), so that nobody waits for what will not come.
 */

export const LIMITS = {
	/** Pages that are made at the same time: more would only take turns. */
	pagesAtOnce: 2,
	/** A page that has no head after so long waits for another thread or a file: it holds up no others, ms. */
	longestTurnMs: 150,
	/** Pages that wait for their turn. */
	pagesWaiting: 40,
	/** A page that has waited for so long is turned away: its reader has gone, ms. */
	longestWaitMs: 2000,
	/** Beacons that are under way. */
	beaconsAtOnce: 400
};
const RETRY_AFTER_S = '2';

/** Of beacons, before a page has its turn. */
const BEACONS_A_TURN = 50;
/** Turns in a row that only listen, before a page has its turn all the same. */
const MOST_LISTENING = 100;

/** A monotonic one, ms; what is to be done later keeps no process alive. */
const CLOCK = {
	now: () => performance.now(),
	after: (ms, work) => void setTimeout(work, ms).unref()
};

/**
 * Nothing is begun where it comes in: a page is made in one stretch, and whoever comes behind it would wait unseen in
 * the system's own queue. The loop hears one new connection a turn (libuv): as long as some come, further turns only
 * listen; then beacons are taken, then one page.
 * @param {Partial<typeof LIMITS>} limits
 * @param {typeof CLOCK} clock
 */
export function createAdmission(limits = {}, { now, after } = CLOCK) {
	const { pagesAtOnce, longestTurnMs, pagesWaiting, longestWaitMs, beaconsAtOnce } = { ...LIMITS, ...limits };
	const queues = { page: [], beacon: [] };
	const underWay = { page: 0, beacon: 0 };
	let isPlanned = false;
	let hasHeard = false;
	let listening = 0;

	function plan() {
		if (isPlanned || (queues.page.length === 0 && queues.beacon.length === 0)) return;
		isPlanned = true;
		setImmediate(() => {
			isPlanned = false;
			if (hasHeard && listening++ < MOST_LISTENING) {
				hasHeard = false;
				return plan();
			}
			listening = 0;
			for (const visit of queues.beacon.splice(0, BEACONS_A_TURN)) begin('beacon', visit);
			if (underWay.page < pagesAtOnce) beginPage();
			if (queues.beacon.length > 0 || underWay.page < pagesAtOnce) plan();
		});
	}

	function beginPage() {
		for (let page = queues.page.shift(); page; page = queues.page.shift()) {
			if (page.response.destroyed || page.response.closed) continue;
			if (now() - page.since <= longestWaitMs) return begin('page', page);
			turnAway(page.response);
		}
	}

	function begin(kind, { response, work }) {
		underWay[kind]++;
		const end = once(() => {
			underWay[kind]--;
			plan();
		});
		untilHead(response, end);
		if (kind === 'page') after(longestTurnMs, end);
		work();
	}

	return {
		/** Somebody has connected, and others may be waiting behind. */
		connected() {
			hasHeard = true;
		},
		/** A page, or a figure that is asked for. */
		page(response, work) {
			if (queues.page.length >= pagesWaiting) return turnAway(response);
			queues.page.push({ since: now(), response, work });
			plan();
		},
		/** A page view of a visitor. */
		beacon(response, work) {
			if (queues.beacon.length + underWay.beacon >= beaconsAtOnce) return turnAway(response);
			queues.beacon.push({ response, work });
			plan();
		}
	};
}

/** An answer is under way until its head goes out: how slowly its reader takes the rest is nobody's wait. */
function untilHead(response, end) {
	const { writeHead } = response;
	response.writeHead = function (...head) {
		end();
		return writeHead.apply(this, head);
	};
	response.once('close', end);
}

function once(work) {
	let isDone = false;
	return () => {
		if (isDone) return;
		isDone = true;
		work();
	};
}

function turnAway(response) {
	response
		.writeHead(503, { 'retry-after': RETRY_AFTER_S, 'content-type': 'text/plain; charset=utf-8' })
		.end('Zafra has more to do than it can. Nothing is lost; try again in a moment.');
}

/** Files of the build, streams and pictures: quick to give, and a page asks for dozens at once. */
const NO_TURN =
	/^\/(_app|fonts|control)\/|^\/api\/events|^\/[\w.-]+\.(svg|ico|png|webmanifest|txt)$|\/(pictures|frames|picture|step-picture|logo)(\/|\?|$)/;

/** Which turn a request waits for. */
export function turnOf({ method = 'GET', url = '' }, isVisit) {
	if (isVisit) return 'beacon';
	if (method !== 'GET' && method !== 'HEAD') return 'none';
	return NO_TURN.test(url) ? 'none' : 'page';
}
