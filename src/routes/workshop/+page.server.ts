import { describeConditions } from '$core/load/conditions/conditions';
import { METRICS } from '$core/metrics/catalogue';
import { LAB_RECIPE } from '$core/metrics/score';
import { labSheet } from '$lib/server/desk/labSheet';
import { listConditions } from '$lib/server/rooms/conditions/saved';

export const load = ({ locals }) => ({
	where: 'Workshop',
	fitness: labSheet(locals.db).fitness.words,
	conditions: listConditions(locals.db).map((one) => ({
		id: one.id,
		name: one.name,
		summary: one.summary,
		detail: describeConditions(one),
		builtIn: one.builtIn,
		changed: one.changed
	})),
	hostMap: locals.settings.hostMap.map((rule) => ({
		pattern: rule.pattern,
		to: `${rule.address}:${rule.port}${rule.tlsPort === null ? '' : `/${rule.tlsPort}`}`
	})),
	recipe: { version: LAB_RECIPE.version, weights: LAB_RECIPE.weights as Record<string, number> },
	metrics: METRICS.map(({ id, name, margin, unit, thresholds }) => ({ id, name, margin, unit, thresholds }))
});
