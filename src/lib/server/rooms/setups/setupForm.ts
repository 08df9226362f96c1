/** What a page runs on as a form has it: rows of components, features as lines. */
import * as v from 'valibot';
import { Setup } from '$core/trial/design/setup';
import { parsed } from '../../base/parse';
import { Figure, linesOf, Text, Texts } from '../../http/fields';
import type { Typed } from '../../http/form';

const ComponentRow = v.object({
	kind: Text,
	name: Text,
	version: Text,
	tier: Text,
	monthlyCost: Figure,
	jobs: Texts,
	settings: Text
});
export type ComponentRow = v.InferOutput<typeof ComponentRow>;

const NOTHING = { components: [], features: '', effortHours: null };
export const SetupFields = v.object({
	components: v.optional(v.array(ComponentRow), []),
	/** One a line: "Web fonts: on". */
	features: Text,
	effortHours: Figure
});
export type TypedSetup = Typed<typeof SetupFields>;
export const ArmSetupFields = v.object({ arm: Text, setup: v.optional(SetupFields, NOTHING) });

export const NO_TYPED_SETUP: TypedSetup = NOTHING;

/** A feature named without a state is on. */
function featuresIn(lines: string): Record<string, boolean> {
	const typed = linesOf(lines).map((line) => line.split(':').map((part) => part.trim()));
	return Object.fromEntries(typed.map(([feature, state = 'on']) => [feature, !/^(off|no|false|0)$/i.test(state)]));
}

/** Components without a name are not there yet. @param at path of the setup among the fields @throws Invalid */
export function setupFrom({ components, features, effortHours }: TypedSetup, at = 'setup'): Setup {
	const named = components.filter(({ name }) => name.trim());
	const setup = { components: named, features: featuresIn(features), effortHours };
	return parsed(Setup, setup, (path) => `${at}.${path}`);
}

export const isEmptySetup = ({ components, features, effortHours }: Setup): boolean =>
	components.length === 0 && Object.keys(features).length === 0 && effortHours === null;
