import { error, fail, redirect } from '@sveltejs/kit';
import * as v from 'valibot';
import type { RequestEvent } from './$types';
import { LibraryComponent } from '$core/setups/component';
import { COMPONENT_KINDS, EXCLUSIVE_JOBS } from '$core/trial/design/setup';
import type { Db } from '$lib/server/base/db/connection';
import { idFrom, issuesOf } from '$lib/server/http/api';
import { formAction, jsonOf, textOf, withTyped } from '$lib/server/http/form';
import { pageOr404 } from '$lib/server/http/pageOr404';
import { deleteComponent, existingComponent, saveComponent } from '$lib/server/rooms/setups/components';

const lines = (text: string) =>
	text
		.split('\n')
		.map((line) => line.trim())
		.filter(Boolean);

const blank = (query: URLSearchParams) => {
	const kind = COMPONENT_KINDS.find((known) => known === query.get('kind')) ?? 'plugin';
	const list = (name: string) => lines(query.get(name) ?? '');
	const recognition = { hosts: list('hosts'), paths: list('paths'), markers: [], initiators: [] };
	return { ...v.parse(LibraryComponent, { kind, name: '?', recognition }), name: query.get('name') ?? '' };
};

export const load = ({ locals, params, url }) =>
	pageOr404(() => {
		const isNew = params.id === 'new';
		if (!isNew && !/^\d+$/.test(params.id)) error(404, `There is no component “${params.id}”.`);
		const component = isNew ? blank(url.searchParams) : existingComponent(locals.db, idFrom(params.id, 'component'));
		return {
			where: `Workshop › Components › ${isNew ? 'New component' : component.name}`,
			isNew,
			kinds: COMPONENT_KINDS,
			jobs: EXCLUSIVE_JOBS,
			fields: {
				kind: component.kind as string,
				name: component.name,
				versions: component.versions.join('\n'),
				prices: JSON.stringify(component.prices),
				jobs: component.jobs as string[],
				features: component.features.join('\n'),
				hosts: component.recognition.hosts.join('\n'),
				paths: component.recognition.paths.join('\n'),
				markers: component.recognition.markers.join('\n'),
				initiators: component.recognition.initiators.join('\n'),
				settings: component.settings.map(({ name, text }) => ({ name, bytes: text.length })),
				note: component.note
			}
		};
	});

function typedComponent(form: FormData) {
	const text = (name: string) => textOf(form, name);
	return {
		kind: text('kind'),
		name: text('name'),
		versions: text('versions'),
		prices: text('prices'),
		jobs: form.getAll('jobs').map(String),
		features: text('features'),
		hosts: text('hosts'),
		paths: text('paths'),
		markers: text('markers'),
		initiators: text('initiators'),
		note: text('note')
	};
}

async function settingsFrom(db: Db, form: FormData, id: number | null) {
	const kept = id === null ? [] : existingComponent(db, id).settings;
	const dropped = new Set(form.getAll('dropSettings').map(String));
	const file = form.get('settings');
	const added = file instanceof File && file.size > 0 ? [{ name: file.name, text: await file.text() }] : [];
	const names = new Set(added.map(({ name }) => name));
	return [...kept.filter(({ name }) => !dropped.has(name) && !names.has(name)), ...added];
}

export const actions = {
	save: formAction(async (form, { locals, params }: RequestEvent) => {
		const id = params.id === 'new' ? null : idFrom(params.id, 'component');
		const typed = typedComponent(form);
		const { versions, features, hosts, paths, markers, initiators, prices, ...rest } = typed;
		const read = v.safeParse(LibraryComponent, {
			...rest,
			versions: lines(versions),
			features: lines(features),
			prices: jsonOf(prices || '[]', 'prices'),
			recognition: { hosts: lines(hosts), paths: lines(paths), markers: lines(markers), initiators: lines(initiators) },
			settings: await settingsFrom(locals.db, form, id)
		});
		if (!read.success) return fail(422, { typed, issues: issuesOf(read.issues) });
		const saved = withTyped(typed, () => saveComponent(locals.db, id, read.output));
		if (typeof saved !== 'number') return saved;
		redirect(303, '/workshop/components');
	}),
	delete: formAction((_form, { locals, params }: RequestEvent) => {
		const binned = deleteComponent(locals.db, idFrom(params.id, 'component'));
		redirect(303, `/workshop/components?deleted=${binned}`);
	})
};
