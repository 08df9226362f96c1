/** What the screens of watches and standings do: both are read, paused, changed and deleted in the same way. */
import { fail, redirect } from '@sveltejs/kit';
import { StandingInput, WatchInput } from '$core/watch/input';
import { getDb } from '../context';
import { idFrom } from '../http/api';
import { formAction, withTyped } from '../http/form';
import { cancelReading, requestReading } from './blocks';
import { moveToPresentConditions } from './conditions';
import { changeWatch, createWatch, deleteWatch, setWatchState, type AnyInput } from './commands';
import { typedWatch, watchFrom } from './form';
import { pagesNamed } from './pageChoice';
import { existingWatch, type WatchKind } from './watches';

interface Event {
	request: Request;
	params: { id?: string };
}

const SCREENS: Record<WatchKind, string> = { watch: '/watch', standing: '/standings' };
const SCHEMAS = { watch: WatchInput, standing: StandingInput };

const numberIn = ({ params }: Event, kind: WatchKind) => idFrom(params.id ?? '', kind);

/** Of the screen of one. */
export function blockActions(kind: WatchKind) {
	const own = (event: Event) => existingWatch(getDb(), numberIn(event, kind), kind);
	return {
		read: formAction((_form: FormData, event: Event) => {
			requestReading(getDb(), own(event), { why: 'demand' });
		}),
		stop: formAction((_form: FormData, event: Event) => cancelReading(getDb(), own(event))),
		move: formAction((_form: FormData, event: Event) => moveToPresentConditions(getDb(), own(event))),
		pause: formAction((_form: FormData, event: Event) => setWatchState(getDb(), own(event).id, kind, 'paused')),
		resume: formAction((_form: FormData, event: Event) => setWatchState(getDb(), own(event).id, kind, 'active')),
		delete: formAction((_form: FormData, event: Event) => {
			deleteWatch(getDb(), own(event).id, kind);
			redirect(303, SCREENS[kind]);
		})
	};
}

/** Make one, and begin its history with a first reading. */
export function createAction(kind: WatchKind) {
	return formAction((form: FormData, _event: Event) => {
		const typed = typedWatch(form);
		const read = watchFrom(typed, SCHEMAS[kind]);
		if ('issues' in read) return fail(422, { typed, taken: pagesNamed(getDb(), typed.pages), issues: read.issues });
		const id = withTyped(typed, () => createWatch(getDb(), { ...read.value, kind } as AnyInput));
		if (typeof id !== 'number') return id;
		requestReading(getDb(), existingWatch(getDb(), id, kind), { why: 'demand' });
		redirect(303, `${SCREENS[kind]}/${id}`);
	});
}

export function changeAction(kind: WatchKind) {
	return formAction((form: FormData, event: Event) => {
		const id = numberIn(event, kind);
		const typed = typedWatch(form);
		const read = watchFrom(typed, SCHEMAS[kind]);
		if ('issues' in read) return fail(422, { typed, taken: pagesNamed(getDb(), typed.pages), issues: read.issues });
		const refused = withTyped(typed, () => changeWatch(getDb(), id, { ...read.value, kind } as AnyInput));
		if (refused) return refused;
		redirect(303, `${SCREENS[kind]}/${id}`);
	});
}
