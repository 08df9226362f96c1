/** What the screens of watches and standings do: both are read, paused, changed and deleted in the same way. */
import { redirect } from '@sveltejs/kit';
import { idFrom } from '../../lib/server/http/api';
import { BUTTON } from '../../lib/server/http/fields';
import { formAction } from '../../lib/server/http/form';
import { cancelReading, requestReading } from '../../lib/server/rooms/watch/blocks';
import { moveToPresentConditions } from '../../lib/server/rooms/watch/conditions';
import { changeWatch, createWatch, deleteWatch, setWatchState } from '../../lib/server/rooms/watch/commands';
import { WatchFields, watchFrom } from '../../lib/server/rooms/watch/form';
import { existingWatch } from '../../lib/server/rooms/watch/watches';
import type { WatchKind } from '../../lib/server/rooms/watch/view';

interface Event {
	request: Request;
	locals: App.Locals;
	params: { id?: string };
}

const SCREENS: Record<WatchKind, string> = { watch: '/watch', standing: '/standings' };

const numberIn = ({ params }: Event, kind: WatchKind) => idFrom(params.id ?? '', kind);

/** Of the screen of one. */
export function blockActions(kind: WatchKind) {
	const own = (event: Event) => existingWatch(event.locals.db, numberIn(event, kind), kind);
	return {
		read: formAction(BUTTON, (_, event: Event) => {
			requestReading(event.locals.db, own(event), { why: 'demand' });
		}),
		stop: formAction(BUTTON, (_, event: Event) => cancelReading(event.locals.db, own(event))),
		move: formAction(BUTTON, (_, event: Event) => moveToPresentConditions(event.locals.db, own(event))),
		pause: formAction(BUTTON, (_, event: Event) => setWatchState(event.locals.db, own(event).id, kind, 'paused')),
		resume: formAction(BUTTON, (_, event: Event) => setWatchState(event.locals.db, own(event).id, kind, 'active')),
		delete: formAction(BUTTON, (_, event: Event) => {
			deleteWatch(event.locals.db, own(event).id, kind);
			redirect(303, SCREENS[kind]);
		})
	};
}

/** Make one, and begin its history with a first reading. */
export const createAction = (kind: WatchKind) =>
	formAction(WatchFields, (typed, { locals: { db } }: Event) => {
		const id = createWatch(db, watchFrom(typed, kind));
		requestReading(db, existingWatch(db, id, kind), { why: 'demand' });
		redirect(303, `${SCREENS[kind]}/${id}`);
	});

export const changeAction = (kind: WatchKind) =>
	formAction(WatchFields, (typed, event: Event) => {
		const id = numberIn(event, kind);
		changeWatch(event.locals.db, id, watchFrom(typed, kind));
		redirect(303, `${SCREENS[kind]}/${id}`);
	});
