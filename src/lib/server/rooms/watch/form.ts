/** A watch or a standing as a form has it: text in, the same schema as the API. */
import * as v from 'valibot';
import { DEFAULT_PRIMARY } from '$core/metrics/catalogue';
import { elementLines, parseElements } from '$core/load/journey/namedElement';
import type { WatchSettings } from '$core/watch/input';
import { clientNames } from '../clients/clients';
import { conditionNames } from '../conditions/saved';
import type { Db } from '../../base/db/connection';
import { issuesOf, type Issue } from '../../http/api';
import { textOf } from '../../http/form';
import { pageOffer, pagesNamed, type PageOffer } from './pageChoice';
import { existingWatch, pagesOfWatch, type Watch, type WatchedPage, type WatchKind } from './watches';

export interface TypedWatch {
	clientId: number;
	name: string;
	pages: number[];
	conditions: string[];
	every: string;
	pattern: string;
	timeZone: string;
	loads: string;
	metrics: string[];
	control: string;
	mail: string;
	hook: string;
	/** A line each: name = selector. */
	shown: string;
	/** Visitor states by their numbers. */
	states: number[];
}

export function typedWatch(form: FormData): TypedWatch {
	const list = (name: string) => textOf(form, name).split(',').filter(Boolean);
	return {
		clientId: Number(textOf(form, 'clientId')),
		name: textOf(form, 'name'),
		pages: list('pages').map(Number),
		conditions: list('conditions'),
		every: textOf(form, 'every'),
		pattern: textOf(form, 'pattern'),
		timeZone: textOf(form, 'timeZone'),
		loads: textOf(form, 'loads'),
		metrics: list('metrics'),
		control: textOf(form, 'control'),
		mail: textOf(form, 'mail'),
		hook: textOf(form, 'hook'),
		shown: textOf(form, 'shown'),
		states: form.getAll('states').map(Number).filter(Boolean)
	};
}

/** What was typed, parsed; or what is wrong with it, field by field. */
export function watchFrom<Schema extends v.GenericSchema>(
	typed: TypedWatch,
	schema: Schema
): { value: v.InferOutput<Schema> } | { issues: Issue[] } {
	const { every, pattern, timeZone, loads, control, mail, hook, metrics, shown, ...rest } = typed;
	const result = v.safeParse(schema, {
		...rest,
		schedule: { every, pattern, timeZone },
		loads: Number(loads),
		...(metrics.length ? { metrics } : {}),
		control: control.trim() || null,
		shown: parseElements(shown),
		notices: {
			mail: mail.split(/[\s,;]+/).filter(Boolean),
			hook: hook.trim() || null
		}
	});
	return result.success ? { value: result.output } : { issues: issuesOf(result.issues) };
}

function typedFrom(
	{ clientId, name, settings }: Pick<Watch, 'clientId' | 'name'> & { settings: WatchSettings },
	pages: readonly WatchedPage[]
): TypedWatch {
	const { conditions, schedule, loads, metrics, notices, shown = [], states = [] } = settings;
	return {
		clientId,
		name,
		pages: pages.flatMap(({ pageId, role, endedAt }) =>
			pageId !== null && role !== 'control' && endedAt === null ? [pageId] : []
		),
		conditions,
		every: schedule.every,
		pattern: schedule.pattern,
		timeZone: schedule.timeZone,
		loads: String(loads),
		metrics,
		control: pages.find(({ role, endedAt }) => role === 'control' && endedAt === null)?.url ?? '',
		mail: notices.mail.join(', '),
		hook: notices.hook ?? '',
		shown: elementLines(shown),
		states
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
		clientId,
		name: '',
		pages: taken.map(({ id }) => id),
		conditions: ['phone', 'desktop'],
		every: 'week',
		pattern: '',
		timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
		loads: isWatch ? '5' : '10',
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
	return { name: watch.name, choices: watchChoices(db, kind, watch.clientId, typed.pages), typed };
}
