/** Forms of clients and sites: text as it was typed, and what it means. */
import * as v from 'valibot';
import { ClientInput, type Person } from '$core/clients/client';
import { hostTyped, SiteInput } from '$core/clients/site';
import { parseSteps } from '$core/load/journey/steps';
import { parseCookies, VisitorState } from '$core/load/journey/visitorState';
import { mustSendLines, parseMustSend } from '$core/trial/design/mustSend';
import { parsed, readAt } from '../../base/parse';
import type { Typed } from '../../http/form';
import { Figure, linesOf, Text, Texts, wordsOf } from '../../http/fields';

const TargetRow = v.object({ metric: Text, conditions: Text, value: Figure });
const MarginRow = v.object({ metric: Text, absolute: Figure, percent: Figure });

export const ClientFields = v.object({
	name: Text,
	note: Text,
	language: Text,
	currency: Text,
	people: Text,
	reportName: Text,
	reportColour: Text,
	targets: v.optional(v.array(TargetRow), []),
	margins: v.optional(v.array(MarginRow), []),
	conditions: Texts,
	mustSend: Text,
	growth: Text,
	hourly: Text,
	/** Of the client as it was read; empty for a new one. */
	revision: Text
});
export type TypedClient = Typed<typeof ClientFields>;

/** A client as its form shows it. */
export function typedClient(client: ClientInput & { revision?: number }): TypedClient {
	const { people, targets, margins, mustSend, growth, hourly, ...rest } = client;
	return {
		...rest,
		people: peopleLines(people),
		targets: targets.map((target) => ({ ...target, conditions: target.conditions ?? '' })),
		margins: Object.entries(margins).map(([metric, { absolute, relative }]) => ({
			metric,
			absolute,
			percent: Math.round(relative * 10_000) / 100
		})),
		mustSend: mustSendLines(mustSend),
		growth: growth ? String(Math.round(growth * 1000) / 10) : '',
		hourly: hourly ? String(hourly) : '',
		revision: String(client.revision ?? '')
	};
}

/** @throws Invalid with what is wrong at its field */
export function clientFrom({ revision: _revision, ...typed }: TypedClient): ClientInput {
	const mustSend = readAt('mustSend', () => parseMustSend(typed.mustSend));
	return parsed(ClientInput, {
		...typed,
		people: parsePeople(typed.people),
		targets: typed.targets.map((row) => ({ ...row, conditions: row.conditions || null, value: row.value ?? NaN })),
		// An empty field asks for nothing.
		margins: Object.fromEntries(
			typed.margins.map(({ metric, absolute, percent }) => [
				metric,
				{ absolute: absolute ?? 0, relative: (percent ?? 0) / 100 }
			])
		),
		mustSend,
		growth: amountIn(typed.growth) / 100,
		hourly: amountIn(typed.hourly)
	});
}

/** An empty field is a zero. @returns NaN for what is no number, which the schema refuses */
const amountIn = (text: string) => (text.trim() === '' ? 0 : Number(text.replace(',', '.')));

/** "Ines Harrow, bookings, ines@skerry-line.test", one a line. */
export function parsePeople(text: string): Person[] {
	return linesOf(text).map((line) => {
		const parts = line.split(',').map((part) => part.trim());
		const email = parts.find((part) => part.includes('@')) ?? '';
		const [name = '', ...roles] = parts.filter((part) => part !== email);
		return { name, role: roles.join(', '), email };
	});
}

export const peopleLines = (people: readonly Person[]): string =>
	people.map(({ name, role, email }) => [name, role, email].filter(Boolean).join(', ')).join('\n');

export const SiteFields = v.object({
	name: Text,
	host: Text,
	scheme: Text,
	role: v.optional(v.string(), 'own'),
	hosts: Text,
	cdnHosts: Text,
	previewHost: Text,
	previewAccess: Text,
	forgetAccess: v.optional(v.boolean(), false),
	place: Text
});
export type TypedSite = Typed<typeof SiteFields>;

/** A site as its form shows it; its access is a secret that nobody is shown. */
export const typedSite = ({ hosts, cdnHosts, ...site }: SiteInput): TypedSite => ({
	...site,
	hosts: hosts.join(', '),
	cdnHosts: cdnHosts.join(', '),
	previewAccess: '',
	forgetAccess: false
});

/** @param access that is kept where none was typed @throws Invalid with what is wrong at its field */
export function siteFrom({ forgetAccess, ...typed }: TypedSite, access = ''): SiteInput {
	const { host, scheme } = hostTyped(typed.host);
	const bare = host.trim().toLowerCase().replace(/\/.*$/, '');
	return parsed(SiteInput, {
		...typed,
		name: typed.name.trim() || bare,
		host: bare,
		scheme: scheme ?? (typed.scheme || 'https'),
		hosts: wordsOf(typed.hosts),
		cdnHosts: wordsOf(typed.cdnHosts),
		previewAccess: forgetAccess ? '' : typed.previewAccess || access
	});
}

export const StateFields = v.object({ stateName: Text, stateUrl: Text, stateSteps: Text, stateCookies: Text });

/** "steps.2" of the state is the field of its steps. */
const STATE_FIELDS: Record<string, string> = { name: 'stateName', url: 'stateUrl', cookies: 'stateCookies' };

/** @throws Invalid with what is wrong at its field */
export function stateFrom(typed: Typed<typeof StateFields>): VisitorState {
	const state = {
		name: typed.stateName.trim(),
		url: typed.stateUrl.trim() || null,
		steps: readAt('stateSteps', () => parseSteps(typed.stateSteps.trim())),
		cookies: readAt('stateCookies', () => parseCookies(typed.stateCookies.trim()))
	};
	return parsed(VisitorState, state, (path) => STATE_FIELDS[path.split('.')[0]!] ?? 'stateSteps');
}
