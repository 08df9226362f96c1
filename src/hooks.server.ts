import type { Handle, HandleServerError, ServerInit } from '@sveltejs/kit';
import { building } from '$app/environment';
import { join } from 'node:path';
import { BUSY_WORDS, errorAnswer, RETRY_AFTER_S } from '$lib/server/http/api';
import { boot, type Booted } from '$lib/server/boot';
import { databaseProblem, isBusy, type Db } from '$lib/server/base/db/connection';
import { requestDueField } from '$lib/server/rooms/field/gathering';
import { logOf } from '$lib/server/base/log';
import { beginDemoReports, trialsWithoutEvidence, freezeDemoReports } from '$lib/server/demo/reports';
import { keepWatches } from '$lib/server/rooms/watch/keeping';
import { keepVisits } from '$lib/server/rooms/field/visitKeeping';
import { dropOldBodies } from '$lib/server/rooms/loads/loads';
import { dropOrphanTwins } from '$lib/server/rooms/trials/twins';
import { endRunner, keepRunner } from '$lib/server/rooms/labs/child';

const log = logOf('web');

/** What the requests of this process work with. */
let booted: Booted;

export const init: ServerInit = () => {
	if (building) return;
	booted = boot();
	const { db, settings, visits } = booted;
	if (settings.startRunner) keepRunner(db);
	if (settings.panel.url) setInterval(() => askAgain(db), ASK_AGAIN_MS).unref();
	keepVisits(db, visits().db, log);
	keepWatches(db, { ...settings, outward: settings }, log);
	if (process.env.ZAFRA_DEMO === 'on') keepDemoReports(db);
	if (process.env.ZAFRA_DEMO === 'on' && !settings.startRunner) void deriveDemoEvidence(booted);
	setTimeout(() => void lookForDamage(booted), LOOK_FOR_DAMAGE_AFTER_MS).unref();
	setInterval(() => dropBodies(db, settings.dataFolder), DROP_BODIES_EVERY_MS).unref();
	process.on('sveltekit:shutdown', endRunner);
	process.on('exit', endRunner);
	// Started by a parent over a channel, web ends with that parent; a plain start has no channel.
	process.on('disconnect', () => process.exit(0));
};

/** Reading a large file takes its time: not while the first pages are asked for. */
const LOOK_FOR_DAMAGE_AFTER_MS = 3000;

async function lookForDamage(found: Booted): Promise<void> {
	try {
		found.noteDamage(await found.runHeavy('findDamage'));
	} catch (error) {
		log.warn({ error: (error as Error).message }, 'the database could not be looked through');
	}
	if (found.damage()) log.error({ damage: found.damage() }, 'the database is damaged');
}

const DROP_BODIES_EVERY_MS = 3_600_000;

function dropBodies(db: Db, dataFolder: string): void {
	try {
		dropOldBodies(db);
		dropOrphanTwins(db, dataFolder);
	} catch (error) {
		log.warn({ error: (error as Error).message }, 'what came with old loads could not be dropped');
	}
}

/** The demonstration's reports are frozen once the lab has worked out what their trials show. */
function keepDemoReports(db: Db): void {
	beginDemoReports(db);
	const timer = setInterval(() => {
		try {
			if (freezeDemoReports(db)) clearInterval(timer);
		} catch (error) {
			log.warn({ error: (error as Error).message }, 'a report of the demonstration could not be frozen yet');
		}
	}, LOOK_FOR_EVIDENCE_MS);
	timer.unref();
}

const LOOK_FOR_EVIDENCE_MS = 2000;

/** Without a lab nobody else works out what the demonstration's trials show. */
async function deriveDemoEvidence({ db, runHeavy }: Booted): Promise<void> {
	try {
		for (const id of trialsWithoutEvidence(db)) await runHeavy('deriveEvidence', id);
	} catch (error) {
		log.warn({ error: (error as Error).message }, 'the evidence of the demonstration could not be worked out');
	}
}

/** Field data are asked for once a day; each hour it is looked whether that has been done. */
const ASK_AGAIN_MS = 3_600_000;

function askAgain(db: Db): void {
	try {
		requestDueField(db);
	} catch (error) {
		log.warn({ error: (error as Error).message }, 'field data could not be asked for');
	}
}

const HEADERS = {
	'x-content-type-options': 'nosniff',
	'referrer-policy': 'same-origin',
	'x-frame-options': 'DENY',
	'cross-origin-opener-policy': 'same-origin',
	'cross-origin-resource-policy': 'same-origin',
	// Nothing of the machine is asked for (W3C Permissions Policy).
	'permissions-policy':
		'accelerometer=(), camera=(), clipboard-read=(), display-capture=(), geolocation=(), gyroscope=(), microphone=(), payment=(), usb=()'
};

/** The app asks nothing of the outside world, and the browser is told to hold it to that. */
export const handle: Handle = async ({ event, resolve }) => {
	Object.assign(event.locals, booted);
	let response = await resolve(event, {
		preload: ({ type }) => type === 'js' || type === 'css' || type === 'font'
	});
	const { failed } = event.locals;
	if (failed) response = answerFailed(event.url.pathname, response, failed);
	for (const [name, value] of Object.entries(HEADERS)) response.headers.set(name, value);
	// Pages of other sites ask for the visits' script.
	if (event.url.pathname.startsWith('/visit')) response.headers.set('cross-origin-resource-policy', 'cross-origin');
	return response;
};

/** The framework makes 500 of each error that it does not know: a locked database or a full disk is no fault. */
function answerFailed(path: string, response: Response, { status, message }: Failed): Response {
	const answer = path.startsWith('/api/')
		? errorAnswer(status, message)
		: new Response(response.body, { status, headers: response.headers });
	if (status === BUSY) answer.headers.set('retry-after', RETRY_AFTER_S);
	return answer;
}

const BUSY = 503;
/** RFC 4918, 11.5. */
const NO_SPACE = 507;
type Failed = NonNullable<App.Locals['failed']>;

/** What stands in a log may be read by others: a link's token opens a report. */
const loggedPath = (path: string) => path.replace(/^\/r\/[^/]+/, '/r/…');

export const handleError: HandleServerError = ({ error, event, status, message }) => {
	if (status === 404) return { message: `There is nothing at ${event.url.pathname.slice(0, 200)}.` };
	if (status < 500) return { message };
	event.locals.failed = failureOf(error, status, message);
	if (event.locals.failed.status === BUSY) return { message: BUSY_WORDS };
	log.error({ err: error, method: event.request.method, path: loggedPath(event.url.pathname) }, 'an answer failed');
	return { message: event.locals.failed.message };
};

/** What an error is, in words, and the status that says so. */
function failureOf(error: unknown, status: number, message: string): Failed {
	if (isBusy(error)) return { status: BUSY, message: BUSY_WORDS };
	const { code } = error as { code?: string };
	if (code === 'SQLITE_FULL' || code === 'ENOSPC') return { status: NO_SPACE, message: FULL_WORDS };
	if (code?.startsWith('SQLITE_')) {
		const problem = databaseProblem(error, join(booted.settings.dataFolder, 'zafra.db'));
		return { status, message: `The database cannot be used: ${problem}` };
	}
	return { status, message: `${message}. This is a fault of Zafra; nothing that was measured is lost.` };
}

const FULL_WORDS =
	'The disk is full, so that this could not be saved. Make room in the data folder and try again; what was saved before is kept.';
