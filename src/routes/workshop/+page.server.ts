import { fail } from '@sveltejs/kit';
import { describeConditions } from '$core/load/conditions';
import { METRICS } from '$core/metrics/catalogue';
import { LAB_RECIPE } from '$core/metrics/score';
import { formAction } from '$lib/server/http/form';
import { getDb, getSettings } from '$lib/server/context';
import { listClients, setCdnHosts } from '$lib/server/clients/clients';
import { labSheet } from '$lib/server/labs/sheet';
import { listConditions } from '$lib/server/conditions/saved';

const HOST = /^[a-z0-9-]+(\.[a-z0-9-]+)+$/;

export const actions = {
	cdn: formAction((form) => {
		const hosts = String(form.get('hosts') ?? '')
			.toLowerCase()
			.split(/[\s,]+/)
			.filter(Boolean);
		const bad = hosts.find((host) => !HOST.test(host));
		if (bad)
			return fail(422, {
				site: Number(form.get('site')),
				typed: String(form.get('hosts')),
				problem: `“${bad}” is not a host. Write hosts alone, for example files.example.test.`
			});
		setCdnHosts(getDb(), Number(form.get('site')), hosts);
		return { site: 0, typed: '', problem: '' };
	})
};

export const load = () => ({
	sites: listClients(getDb()).flatMap((client) => client.sites.map((site) => ({ ...site, client: client.name }))),
	where: 'Workshop',
	fitness: labSheet(getDb()).fitness.words,
	conditions: listConditions(getDb()).map((one) => ({
		id: one.id,
		name: one.name,
		summary: one.summary,
		detail: describeConditions(one),
		builtIn: one.builtIn,
		changed: one.changed
	})),
	hostMap: getSettings().hostMap.map((rule) => ({
		pattern: rule.pattern,
		to: `${rule.address}:${rule.port}${rule.tlsPort === null ? '' : `/${rule.tlsPort}`}`
	})),
	recipe: { version: LAB_RECIPE.version, weights: LAB_RECIPE.weights as Record<string, number> },
	metrics: METRICS.map(({ id, name, margin, unit, thresholds }) => ({ id, name, margin, unit, thresholds }))
});
