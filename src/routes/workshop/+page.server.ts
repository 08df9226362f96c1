import { describeConditions } from '$core/load/conditions';
import { METRICS } from '$core/metrics/catalogue';
import { LAB_RECIPE } from '$core/metrics/score';
import { getDb, getSettings } from '$lib/server/context';
import { labSheet } from '$lib/server/labs/sheet';
import { listConditions } from '$lib/server/conditions/saved';

export const load = () => ({
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
