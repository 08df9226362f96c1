import type { Handle, HandleServerError, ServerInit } from '@sveltejs/kit';
import { building } from '$app/environment';
import { endRunner, keepRunner } from '$lib/server/runner/child';
import { getDb, getSettings } from '$lib/server/context';

export const init: ServerInit = () => {
	if (building) return;
	getDb();
	if (getSettings().startRunner) keepRunner(getDb());
	process.on('sveltekit:shutdown', endRunner);
	process.on('exit', endRunner);
	// Started by a parent over a channel, web ends with that parent; a plain start has no channel.
	process.on('disconnect', () => process.exit(0));
};

/** The app asks nothing of the outside world, and the browser is told to hold it to that. */
export const handle: Handle = async ({ event, resolve }) => {
	const response = await resolve(event, {
		preload: ({ type }) => type === 'js' || type === 'css' || type === 'font'
	});
	response.headers.set('x-content-type-options', 'nosniff');
	response.headers.set('referrer-policy', 'same-origin');
	response.headers.set('x-frame-options', 'DENY');
	return response;
};

export const handleError: HandleServerError = ({ error, event, status, message }) => {
	if (status !== 404) console.error(`${event.request.method} ${event.url.pathname}:`, error);
	return {
		message:
			status === 404
				? `There is nothing at ${event.url.pathname}.`
				: `${message}. This is a fault of Zafra; nothing that was measured is lost.`
	};
};
