/** Forms of clients and sites: text as it was typed, and what it means. */
import type { Person } from '$core/clients/client';
import { hostTyped } from '$core/clients/site';
import { parseMustSend } from '$core/trial/design/mustSend';
import { jsonOf, textOf } from '../../http/form';
import type { Issue } from '../../http/api';

/** Figures are typed as numbers; an empty field is a zero. @returns NaN for what is none, which the schema refuses */
const numberOf = (text: string) => (text.trim() === '' ? 0 : Number(text.replace(',', '.')));

/** "Ines Harrow, bookings, ines@skerry-line.test", one a line. */
export function parsePeople(text: string): Person[] {
	return text
		.split('\n')
		.map((line) => line.trim())
		.filter(Boolean)
		.map((line) => {
			const parts = line.split(',').map((part) => part.trim());
			const email = parts.find((part) => part.includes('@')) ?? '';
			const [name = '', ...roles] = parts.filter((part) => part !== email);
			return { name, role: roles.join(', '), email };
		});
}

export const peopleLines = (people: readonly Person[]): string =>
	people.map(({ name, role, email }) => [name, role, email].filter(Boolean).join(', ')).join('\n');

/** What was typed, for showing it again. */
export function typedClient(form: FormData) {
	const text = (name: string) => textOf(form, name);
	return {
		name: text('name'),
		note: text('note'),
		language: text('language'),
		currency: text('currency'),
		people: text('people'),
		reportName: text('reportName'),
		reportColour: text('reportColour'),
		targets: text('targets'),
		margins: text('margins'),
		conditions: form.getAll('conditions').map(String),
		mustSend: text('mustSend'),
		growth: text('growth'),
		revision: text('revision'),
		hourly: text('hourly')
	};
}

export type TypedClient = ReturnType<typeof typedClient>;

/** What the schema is asked about, or the issue of a field that cannot be read at all. */
export function clientFrom(typed: TypedClient): { value: unknown } | { issues: Issue[] } {
	try {
		const { people, targets, margins, mustSend, growth, hourly, revision: _revision, ...rest } = typed;
		const value = {
			...rest,
			people: parsePeople(people),
			targets: jsonOf(targets || '[]', 'targets'),
			margins: jsonOf(margins || '{}', 'margins'),
			mustSend: parseMustSend(mustSend),
			growth: numberOf(growth) / 100,
			hourly: numberOf(hourly)
		};
		return { value };
	} catch (error) {
		return { issues: [{ path: 'mustSend', message: (error as Error).message }] };
	}
}

const hosts = (text: string) =>
	text
		.toLowerCase()
		.split(/[\s,]+/)
		.filter(Boolean);

export function typedSite(form: FormData) {
	const text = (name: string) => textOf(form, name).trim();
	const { host, scheme } = hostTyped(text('host'));
	return {
		name: text('name'),
		host: host.toLowerCase().replace(/\/.*$/, ''),
		scheme: scheme ?? (text('scheme') || 'https'),
		role: text('role'),
		hosts: text('hosts'),
		cdnHosts: text('cdnHosts'),
		previewHost: text('previewHost'),
		previewAccess: text('previewAccess'),
		place: text('place')
	};
}

export type TypedSite = ReturnType<typeof typedSite>;

export const siteFrom = (typed: TypedSite) => ({
	...typed,
	name: typed.name || typed.host,
	hosts: hosts(typed.hosts),
	cdnHosts: hosts(typed.cdnHosts)
});
