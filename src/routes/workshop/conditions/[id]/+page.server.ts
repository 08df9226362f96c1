import { error, redirect } from '@sveltejs/kit';
import type { RequestEvent } from './$types';
import { BUILT_IN_CONDITIONS, type Conditions } from '$core/load/conditions/conditions';
import { PLACES } from '$core/load/conditions/places';
import { BUTTON } from '$lib/server/http/fields';
import { formAction, formOf } from '$lib/server/http/form';
import { changeConditions, createConditions, deleteConditions } from '$lib/server/rooms/conditions/commands';
import { ConditionsFields, conditionsFrom, typedConditions } from '$lib/server/rooms/conditions/form';
import { findConditions } from '$lib/server/rooms/conditions/saved';
import { listConditions } from '$lib/server/rooms/conditions/view';

export const load = async ({ locals: { db }, params, url }) => {
	const isNew = params.id === 'new';
	const from = isNew ? url.searchParams.get('from') : params.id;
	const base = from ? findConditions(db, from) : null;
	if (!isNew && !base) error(404, `There are no conditions “${params.id}”.`);
	const start = base ?? { ...BUILT_IN_CONDITIONS[0]!, name: '', summary: '' };
	const saved = listConditions(db).find(({ id }) => id === params.id);
	const conditions: Conditions = isNew ? { ...start, id: '', name: from ? `${start.name}, copy` : '' } : start;
	return {
		where: `Workshop › ${isNew ? 'New conditions' : conditions.name}`,
		isNew,
		name: conditions.name,
		builtIn: saved?.builtIn ?? false,
		changed: saved?.changed ?? false,
		places: PLACES,
		form: await formOf(ConditionsFields, typedConditions(conditions))
	};
};

export const actions = {
	save: formAction(ConditionsFields, (typed, { locals: { db }, params, url }: RequestEvent) => {
		if (params.id === 'new') createConditions(db, conditionsFrom(typed), url.searchParams.get('from'));
		else changeConditions(db, params.id, conditionsFrom({ ...typed, id: params.id }));
		redirect(303, '/workshop');
	}),
	drop: formAction(BUTTON, (_, { locals, params }: RequestEvent) => {
		deleteConditions(locals.db, params.id);
		redirect(303, '/workshop');
	})
};
