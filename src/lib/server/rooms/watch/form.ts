/** A watch or a standing as a form has it: text in, the same schema as the API. */
import * as v from 'valibot';
import { DEFAULT_PRIMARY } from '$core/metrics/catalogue';
import { elementLines, parseElements } from '$core/load/journey/namedElement';
import { StandingInput, WatchInput, type WatchSettings } from '$core/watch/input';
import { conditionNames } from '../conditions/saved';
import type { Db } from '../../base/db/connection';
import { parsed } from '../../base/parse';
import { Figure, Text, Texts, wordsOf } from '../../http/fields';
import type { Typed } from '../../http/form';
import type { AnyInput } from './commands';
import { pageOffer, type PageOffer } from './pageChoice';
import { pagesNamed } from './queries/pageChoice';
import { existingWatch } from './watches';
import { pagesOfWatch, type Watch, type WatchedPage, type WatchKind } from './queries/watches';
import { clientNames } from '../clients/view';

export const WatchFields = v.object({
	clientId: Text,
	name: Text,
	pages: Texts,
	conditions: Texts,
	every: Text,
	pattern: Text,
	timeZone: Text,
	loads: Figure,
	metrics: Texts,
	control: Text,
	mail: Text,
	hook: Text,
	/** A line each: name = selector. */
	shown: Text,
	/** Visitor states by their numbers. */
	states: Texts
});
export type TypedWatch = Typed<typeof WatchFields>;

const SCHEMAS = { watch: WatchInput, standing: StandingInput };

/** @throws Invalid with what is wrong at its field */
export function watchFrom(typed: TypedWatch, kind: WatchKind): AnyInput {
	const { clientId, pages, states, every, pattern, timeZone, loads, control, mail, hook, metrics, shown, ...rest } =
		typed;
	const input = parsed<v.GenericSchema<unknown, WatchInput | StandingInput>>(SCHEMAS[kind], {
		...rest,
		clientId: Number(clientId),
		pages: pages.map(Number),
		states: states.map(Number).filter(Boolean),
		schedule: { every, pattern, timeZone },
		loads: loads ?? NaN,
		...(metrics.length ? { metrics } : {}),
		control: control.trim() || null,
		shown: parseElements(shown),
		notices: { mail: wordsOf(mail), hook: hook.trim() || null }
	});
	return { ...input, kind } as AnyInput;
}

function typedFrom(
	{ clientId, name, settings }: Pick<Watch, 'clientId' | 'name'> & { settings: WatchSettings },
	pages: readonly WatchedPage[]
): TypedWatch {
	const { conditions, schedule, loads, metrics, notices, shown = [], states = [] } = settings;
	return {
		clientId: String(clientId),
		name,
		pages: pages.flatMap(({ pageId, role, endedAt }) =>
			pageId !== null && role !== 'control' && endedAt === null ? [String(pageId)] : []
		),
		conditions,
		every: schedule.every,
		pattern: schedule.pattern,
		timeZone: schedule.timeZone,
		loads,
		metrics,
		control: pages.find(({ role, endedAt }) => role === 'control' && endedAt === null)?.url ?? '',
		mail: notices.mail.join(', '),
		hook: notices.hook ?? '',
		shown: elementLines(shown),
		states: states.map(String)
	};
}

/** What can be chosen: conditions, and pages of a client; of the others when they are chosen. */
export function watchChoices(db: Db, kind: WatchKind, clientId: number | null, taken: readonly number[] | null = null) {
	const clients = clientNames(db);
	const client = clients.find(({ id }) => id === clientId) ?? clients[0] ?? null;
	const offer = client ? pageOffer(db, client.id, kind) : NO_PAGES;
	return {
		conditions: conditionNames(db),
		clients,
		clientId: client?.id ?? 0,
		offer,
		/** Pages that are taken already, with their names. */
		taken: taken ? pagesNamed(db, taken) : offer.usual
	};
}

const NO_PAGES: PageOffer = { pages: [], total: 0, types: [], sites: [], pairs: [], usual: [] };

/** What is offered for a new one: a watch begins with the pages that the client's work looks at. */
export function usualTyped(
	kind: WatchKind,
	{ clientId, taken }: Pick<ReturnType<typeof watchChoices>, 'clientId' | 'taken'>
): TypedWatch {
	const isWatch = kind === 'watch';
	return {
		clientId: String(clientId),
		name: '',
		pages: taken.map(({ id }) => String(id)),
		conditions: ['phone', 'desktop'],
		every: 'week',
		pattern: '',
		timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
		loads: isWatch ? 5 : 10,
		// A standing is read first by what visitors wait for.
		metrics: isWatch ? [...DEFAULT_PRIMARY] : ['lcp', ...DEFAULT_PRIMARY.filter((id) => id !== 'lcp')],
		control: '',
		mail: '',
		hook: '',
		shown: '',
		states: []
	};
}

/** An existing one in its form. @throws NotPossible for one that is not there */
export function changedForm(db: Db, id: number, kind: WatchKind) {
	const watch = existingWatch(db, id, kind);
	const typed = typedFrom(watch, pagesOfWatch(db, id));
	return { name: watch.name, choices: watchChoices(db, kind, watch.clientId, typed.pages.map(Number)), typed };
}
