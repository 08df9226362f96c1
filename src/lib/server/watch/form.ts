/** A watch or a standing as a form has it: text in, the same schema as the API. */
import * as v from 'valibot';
import type { WatchSettings } from '$core/watch/input';
import { clientNames } from '../clients/clients';
import { sitesOf } from '../clients/sites';
import { conditionNames } from '../conditions/saved';
import type { Db } from '../db/connection';
import { issuesOf, type Issue } from '../http/api';
import { textOf } from '../http/form';
import { listPages } from '../pages/queries';
import type { Watch, WatchedPage } from './watches';

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
		hook: textOf(form, 'hook')
	};
}

/** What was typed, parsed; or what is wrong with it, field by field. */
export function watchFrom<Schema extends v.GenericSchema>(
	typed: TypedWatch,
	schema: Schema
): { value: v.InferOutput<Schema> } | { issues: Issue[] } {
	const { every, pattern, timeZone, loads, control, mail, hook, metrics, ...rest } = typed;
	const result = v.safeParse(schema, {
		...rest,
		schedule: { every, pattern, timeZone },
		loads: Number(loads),
		...(metrics.length ? { metrics } : {}),
		control: control.trim() || null,
		notices: {
			mail: mail.split(/[\s,;]+/).filter(Boolean),
			hook: hook.trim() || null
		}
	});
	return result.success ? { value: result.output } : { issues: issuesOf(result.issues) };
}

export function typedFrom(
	{ clientId, name, settings }: Pick<Watch, 'clientId' | 'name'> & { settings: WatchSettings },
	pages: readonly WatchedPage[]
): TypedWatch {
	const { conditions, schedule, loads, metrics, notices } = settings;
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
		hook: notices.hook ?? ''
	};
}

const MOST_PAGES = 200;

/** What can be chosen: pages of each client, chosen ones first; conditions. */
export function watchChoices(db: Db) {
	return {
		conditions: conditionNames(db),
		clients: clientNames(db).map(({ id, name }) => ({
			id,
			name,
			pages: sitesOf(db, id)
				.filter(({ role }) => role !== 'bench')
				.flatMap((site) =>
					listPages(db, { siteId: site.id }, MOST_PAGES).map(({ id: page, url, type, isChosen }) => ({
						id: page,
						url,
						type,
						isChosen,
						site: site.name,
						role: site.role
					}))
				)
		}))
	};
}
