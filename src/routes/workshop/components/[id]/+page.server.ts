import { error, redirect } from '@sveltejs/kit';
import * as v from 'valibot';
import type { RequestEvent } from './$types';
import { LibraryComponent } from '$core/setups/component';
import { COMPONENT_KINDS, EXCLUSIVE_JOBS } from '$core/trial/design/setup';
import { idFrom } from '$lib/server/http/api';
import { BUTTON, linesOf } from '$lib/server/http/fields';
import { formAction, formOf } from '$lib/server/http/form';
import { pageOr404 } from '$lib/server/http/pageOr404';
import { settingsFileOf } from '$lib/server/http/settingsFile';
import { deleteComponent } from '$lib/server/rooms/setups/components';
import { ComponentFields, componentFrom, typedComponent } from '$lib/server/rooms/setups/form';
import { existingComponent, saveComponent } from '$lib/server/rooms/setups/view';

const blank = (query: URLSearchParams) => {
	const kind = COMPONENT_KINDS.find((own) => own === query.get('kind')) ?? 'plugin';
	const list = (name: string) => linesOf(query.get(name) ?? '');
	const recognition = { hosts: list('hosts'), paths: list('paths'), markers: [], initiators: [] };
	return { ...v.parse(LibraryComponent, { kind, name: '?', recognition }), name: query.get('name') ?? '' };
};

export const load = async ({ locals: { db }, params, url }) => {
	const isNew = params.id === 'new';
	if (!isNew && !/^\d+$/.test(params.id)) error(404, `There is no component “${params.id}”.`);
	const component = isNew
		? blank(url.searchParams)
		: pageOr404(() => existingComponent(db, idFrom(params.id, 'component')));
	return {
		where: `Workshop › Components › ${isNew ? 'New component' : component.name}`,
		isNew,
		name: component.name,
		kinds: COMPONENT_KINDS,
		jobs: EXCLUSIVE_JOBS,
		settings: component.settings.map(({ name, text }) => ({ name, bytes: text.length })),
		form: await formOf(ComponentFields, typedComponent(component))
	};
};

export const actions = {
	save: formAction(ComponentFields, async (typed, { locals: { db }, params }: RequestEvent, body) => {
		const id = params.id === 'new' ? null : idFrom(params.id, 'component');
		const saved = id === null ? [] : existingComponent(db, id).settings;
		const file = await settingsFileOf(body);
		saveComponent(db, id, componentFrom(typed, saved, file ? [file] : []));
		redirect(303, '/workshop/components');
	}),
	delete: formAction(BUTTON, (_, { locals, params }: RequestEvent) => {
		const binned = deleteComponent(locals.db, idFrom(params.id, 'component'));
		redirect(303, `/workshop/components?deleted=${binned}`);
	})
};
