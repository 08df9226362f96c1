import { error, fail, redirect } from '@sveltejs/kit';
import type { RequestEvent } from './$types';
import { BUILT_IN_CONDITIONS, NOT_SHOWN, type Conditions, type SecretHeader } from '$core/load/conditions/conditions';
import { parseConditions } from '$core/load/conditions/conditionsInput';
import { PLACES } from '$core/load/conditions/places';
import { issuesOf } from '$lib/server/http/api';
import { formAction } from '$lib/server/http/form';
import { NotPossible } from '$lib/server/base/refusal';
import { changeConditions, createConditions, deleteConditions } from '$lib/server/rooms/conditions/commands';
import { findConditions, listConditions } from '$lib/server/rooms/conditions/saved';

export const load = ({ locals, params, url }) => {
	const db = locals.db;
	const isNew = params.id === 'new';
	const from = isNew ? url.searchParams.get('from') : params.id;
	const base = from ? findConditions(db, from) : null;
	if (!isNew && !base) error(404, `There are no conditions “${params.id}”.`);
	const start = base ?? { ...BUILT_IN_CONDITIONS[0]!, name: '', summary: '' };
	const kept = listConditions(db).find((one) => one.id === params.id);
	const conditions: Conditions = isNew ? { ...start, id: '', name: from ? `${start.name}, copy` : '' } : start;
	return {
		where: `Workshop › ${isNew ? 'New conditions' : conditions.name}`,
		isNew,
		builtIn: kept?.builtIn ?? false,
		changed: kept?.changed ?? false,
		places: PLACES,
		fields: fieldsOf(conditions)
	};
};

/** Every field as text, as the form shows it. */
function fieldsOf(one: Conditions) {
	const lines = (pairs: SecretHeader[]) =>
		pairs.map(({ name, hosts }) => `${name}${hosts?.length ? ` [${hosts.join(', ')}]` : ''}: ${NOT_SHOWN}`).join('\n');
	return {
		id: one.id,
		name: one.name,
		summary: one.summary,
		width: String(one.device.width),
		height: String(one.device.height),
		pixelRatio: String(one.device.pixelRatio),
		touch: one.device.touch,
		mobile: one.device.mobile,
		targetSpeed: one.device.targetSpeed === null ? '' : String(one.device.targetSpeed),
		userAgent: one.device.userAgent ?? '',
		roundTripMs: String(one.network.roundTripMs),
		downKbps: String(one.network.downKbps),
		upKbps: String(one.network.upKbps),
		dnsMs: String(one.network.dnsMs),
		place: one.place,
		cache: one.cache as string,
		input: one.input as string,
		block: one.block.join('\n'),
		headers: lines(one.headers),
		cookies: lines(one.cookies),
		hostMap: one.hostMap,
		username: one.authentication?.username ?? '',
		password: one.authentication ? NOT_SHOWN : '',
		capS: String(one.capMs / 1000),
		quietS: String(one.quietMs / 1000)
	};
}
type Fields = ReturnType<typeof fieldsOf>;

function readFields(form: FormData): Fields {
	const text = (name: string) => String(form.get(name) ?? '').trim();
	const names = [
		'id',
		'name',
		'summary',
		'width',
		'height',
		'pixelRatio',
		'targetSpeed',
		'userAgent',
		'roundTripMs',
		'downKbps',
		'upKbps',
		'dnsMs',
		'place',
		'cache',
		'input',
		'block',
		'headers',
		'cookies',
		'hostMap',
		'username',
		'password',
		'capS',
		'quietS'
	];
	return {
		...Object.fromEntries(names.map((name) => [name, text(name)])),
		touch: form.has('touch'),
		mobile: form.has('mobile')
	} as Fields;
}

function conditionsFrom(fields: Fields): unknown {
	const number = (text: string) => (text === '' ? NaN : Number(text));
	const linesOf = (text: string) =>
		text
			.split('\n')
			.map((line) => line.trim())
			.filter(Boolean);
	const pairs = (text: string) =>
		linesOf(text).map((line) => {
			const at = line.indexOf(':');
			const [, name = '', hosts] = /^(.*?)(?:\s*\[(.*)\])?$/.exec(at < 0 ? line : line.slice(0, at).trim()) ?? [];
			const named = hosts?.split(/[\s,]+/).filter(Boolean);
			return { name, value: at < 0 ? '' : line.slice(at + 1).trim(), ...(named?.length ? { hosts: named } : {}) };
		});
	return {
		id: fields.id,
		name: fields.name,
		summary: fields.summary,
		device: {
			width: number(fields.width),
			height: number(fields.height),
			pixelRatio: number(fields.pixelRatio),
			touch: fields.touch,
			mobile: fields.mobile,
			targetSpeed: fields.targetSpeed === '' ? null : Number(fields.targetSpeed),
			userAgent: fields.userAgent || null
		},
		network: {
			roundTripMs: number(fields.roundTripMs),
			downKbps: number(fields.downKbps),
			upKbps: number(fields.upKbps),
			dnsMs: number(fields.dnsMs)
		},
		place: fields.place,
		cache: fields.cache,
		input: fields.input,
		block: linesOf(fields.block),
		headers: pairs(fields.headers),
		cookies: pairs(fields.cookies),
		hostMap: fields.hostMap,
		authentication: fields.username ? { username: fields.username, password: fields.password } : null,
		capMs: number(fields.capS) * 1000,
		quietMs: number(fields.quietS) * 1000
	};
}

export const actions = {
	save: formAction((form, { locals: { db }, params, url }: RequestEvent) => {
		const fields = readFields(form);
		const isNew = params.id === 'new';
		if (!isNew) fields.id = params.id;
		const read = parseConditions(conditionsFrom(fields));
		if (!read.success) return fail(422, { fields, issues: issuesOf(read.issues) });
		try {
			if (isNew) createConditions(db, read.output, url.searchParams.get('from'));
			else changeConditions(db, params.id, read.output);
		} catch (problem) {
			if (!(problem instanceof NotPossible)) throw problem;
			return fail(problem.status, { fields, issues: [{ path: problem.path ?? '', message: problem.message }] });
		}
		redirect(303, '/workshop');
	}),
	drop: formAction((_form, { locals, params }: RequestEvent) => {
		deleteConditions(locals.db, params.id);
		redirect(303, '/workshop');
	})
};
