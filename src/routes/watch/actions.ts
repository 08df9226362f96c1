/** What the screens of watches and standings do: both are read, paused, changed and deleted in the same way. */
import { fail, redirect } from '@sveltejs/kit';
import { StandingInput, WatchInput } from '$core/watch/input';
import { idFrom } from '../../lib/server/http/api';
import { formAction, withTyped } from '../../lib/server/http/form';
import { cancelReading, requestReading } from '../../lib/server/rooms/watch/blocks';
import { moveToPresentConditions } from '../../lib/server/rooms/watch/conditions';
import {
	changeWatch,
	createWatch,
	deleteWatch,
	setWatchState,
	type AnyInput
} from '../../lib/server/rooms/watch/commands';
import { typedWatch, watchFrom } from '../../lib/server/rooms/watch/form';
import { pagesNamed } from '../../lib/server/rooms/watch/pageChoice';
import { existingWatch, type WatchKind } from '../../lib/server/rooms/watch/watches';

interface Event {
	request: Request;
	locals: App.Locals;
	params: { id?: string };
}

const SCREENS: Record<WatchKind, string> = { watch: '/watch', standing: '/standings' };
const SCHEMAS = { watch: WatchInput, standing: StandingInput };

const numberIn = ({ params }: Event, kind: WatchKind) => idFrom(params.id ?? '', kind);

/** Of the screen of one. */
export function blockActions(kind: WatchKind) {
	const own = (event: Event) => existingWatch(event.locals.db, numberIn(event, kind), kind);
	return {
		read: formAction((_form: FormData, event: Event) => {
			requestReading(event.locals.db, own(event), { why: 'demand' });
		}),
		stop: formAction((_form: FormData, event: Event) => cancelReading(event.locals.db, own(event))),
		move: formAction((_form: FormData, event: Event) => moveToPresentConditions(event.locals.db, own(event))),
		pause: formAction((_form: FormData, event: Event) => setWatchState(event.locals.db, own(event).id, kind, 'paused')),
		resume: formAction((_form: FormData, event: Event) =>
			setWatchState(event.locals.db, own(event).id, kind, 'active')
		),
		delete: formAction((_form: FormData, event: Event) => {
			deleteWatch(event.locals.db, own(event).id, kind);
			redirect(303, SCREENS[kind]);
		})
	};
}

/** Make one, and begin its history with a first reading. */
export function createAction(kind: WatchKind) {
	return formAction((form: FormData, event: Event) => {
		const typed = typedWatch(form);
		const read = watchFrom(typed, SCHEMAS[kind]);
		if ('issues' in read)
			return fail(422, { typed, taken: pagesNamed(event.locals.db, typed.pages), issues: read.issues });
		const id = withTyped(typed, () => createWatch(event.locals.db, { ...read.value, kind } as AnyInput));
		if (typeof id !== 'number') return id;
		requestReading(event.locals.db, existingWatch(event.locals.db, id, kind), { why: 'demand' });
		redirect(303, `${SCREENS[kind]}/${id}`);
	});
}

export function changeAction(kind: WatchKind) {
	return formAction((form: FormData, event: Event) => {
		const id = numberIn(event, kind);
		const typed = typedWatch(form);
		const read = watchFrom(typed, SCHEMAS[kind]);
		if ('issues' in read)
			return fail(422, { typed, taken: pagesNamed(event.locals.db, typed.pages), issues: read.issues });
		const refused = withTyped(typed, () => changeWatch(event.locals.db, id, { ...read.value, kind } as AnyInput));
		if (refused) return refused;
		redirect(303, `${SCREENS[kind]}/${id}`);
	});
}
