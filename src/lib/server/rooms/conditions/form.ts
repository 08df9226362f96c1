/** Conditions as a form has them: every field as text. */
import * as v from 'valibot';
import { NOT_SHOWN, type Conditions, type SecretHeader } from '$core/load/conditions/conditions';
import { parseConditions } from '$core/load/conditions/conditionsInput';
import { outputOf } from '../../base/parse';
import { linesOf, Text, Tick } from '../../http/fields';
import type { Typed } from '../../http/form';

export const ConditionsFields = v.object({
	id: Text,
	name: Text,
	summary: Text,
	width: Text,
	height: Text,
	pixelRatio: Text,
	touch: Tick,
	mobile: Tick,
	targetSpeed: Text,
	userAgent: Text,
	roundTripMs: Text,
	downKbps: Text,
	upKbps: Text,
	dnsMs: Text,
	place: Text,
	cache: Text,
	input: Text,
	block: Text,
	headers: Text,
	cookies: Text,
	hostMap: Text,
	username: Text,
	password: Text,
	capS: Text,
	quietS: Text
});
export type TypedConditions = Typed<typeof ConditionsFields>;

/** Secrets are not shown; what stands in their place keeps them. */
export function typedConditions({ device, network, authentication, ...rest }: Conditions): TypedConditions {
	return {
		...rest,
		width: String(device.width),
		height: String(device.height),
		pixelRatio: String(device.pixelRatio),
		touch: device.touch,
		mobile: device.mobile,
		targetSpeed: device.targetSpeed === null ? '' : String(device.targetSpeed),
		userAgent: device.userAgent ?? '',
		roundTripMs: String(network.roundTripMs),
		downKbps: String(network.downKbps),
		upKbps: String(network.upKbps),
		dnsMs: String(network.dnsMs),
		block: rest.block.join('\n'),
		headers: secretLines(rest.headers),
		cookies: secretLines(rest.cookies),
		username: authentication?.username ?? '',
		password: authentication ? NOT_SHOWN : '',
		capS: String(rest.capMs / 1000),
		quietS: String(rest.quietMs / 1000)
	};
}

const secretLines = (secrets: readonly SecretHeader[]) =>
	secrets.map(({ name, hosts }) => `${name}${hosts?.length ? ` [${hosts.join(', ')}]` : ''}: ${NOT_SHOWN}`).join('\n');

/** The field in which a part of the conditions is typed. */
const FIELDS: Record<string, string> = { capMs: 'capS', quietMs: 'quietS', authentication: 'username' };
const fieldOf = (path: string) => {
	const bare = path.replace(/^(device|network)\./, '').split('.')[0]!;
	return FIELDS[bare] ?? bare;
};

/** @throws Invalid with what is wrong at its field */
export const conditionsFrom = (typed: TypedConditions): Conditions => outputOf(parseConditions(wishOf(typed)), fieldOf);

function wishOf(typed: TypedConditions): unknown {
	const { width, height, pixelRatio, touch, mobile, targetSpeed, userAgent, ...others } = typed;
	const { roundTripMs, downKbps, upKbps, dnsMs, block, headers, cookies, username, password, capS, quietS, ...rest } =
		others;
	return {
		...rest,
		id: rest.id.trim(),
		device: {
			width: numberIn(width),
			height: numberIn(height),
			pixelRatio: numberIn(pixelRatio),
			touch,
			mobile,
			targetSpeed: targetSpeed.trim() === '' ? null : Number(targetSpeed),
			userAgent: userAgent.trim() || null
		},
		network: {
			roundTripMs: numberIn(roundTripMs),
			downKbps: numberIn(downKbps),
			upKbps: numberIn(upKbps),
			dnsMs: numberIn(dnsMs)
		},
		block: linesOf(block),
		headers: secretsIn(headers),
		cookies: secretsIn(cookies),
		authentication: username.trim() ? { username: username.trim(), password: password.trim() } : null,
		capMs: numberIn(capS) * 1000,
		quietMs: numberIn(quietS) * 1000
	};
}

const numberIn = (text: string) => (text.trim() === '' ? NaN : Number(text));

/** "Name [host, host]: value", one a line. */
const secretsIn = (text: string) =>
	linesOf(text).map((line) => {
		const at = line.indexOf(':');
		const [, name = '', hosts] = /^(.*?)(?:\s*\[(.*)\])?$/.exec(at < 0 ? line : line.slice(0, at).trim()) ?? [];
		const named = hosts?.split(/[\s,]+/).filter(Boolean);
		return { name, value: at < 0 ? '' : line.slice(at + 1).trim(), ...(named?.length ? { hosts: named } : {}) };
	});
