import { describeConditions } from '$core/load/conditions/conditions';
import { METRICS } from '$core/metrics/catalogue';
import { LAB_RECIPE } from '$core/metrics/score';
import { labSheet } from '$lib/server/desk/labSheet';
import { listConditions } from '$lib/server/rooms/conditions/view';

export const load = ({ locals }) => ({
	where: 'Workshop',
	fitness: labSheet(locals.db).fitness.words,
	conditions: listConditions(locals.db).map((condition) => ({
		id: condition.id,
		name: condition.name,
		summary: condition.summary,
		detail: describeConditions(condition),
		builtIn: condition.builtIn,
		changed: condition.changed
	})),
	hostMap: locals.settings.hostMap.map((rule) => ({
		pattern: rule.pattern,
		to: `${rule.address}:${rule.port}${rule.tlsPort === null ? '' : `/${rule.tlsPort}`}`
	})),
	recipe: { version: LAB_RECIPE.version, weights: LAB_RECIPE.weights as Record<string, number> },
	metrics: METRICS.map(({ id, name, margin, unit, thresholds }) => ({ id, name, margin, unit, thresholds }))
});
