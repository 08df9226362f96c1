/** A component as the agency's library keeps it: entered once, used in every setup. */
import * as v from 'valibot';
import { COMPONENT_KINDS, EXCLUSIVE_JOBS } from '../trial/design/setup';
import { PriceRule } from './price';
import { NO_RECOGNITION, Recognition } from './recognition';

const text = (name: string, most: number) =>
	v.pipe(v.string(`${name} is text.`), v.trim(), v.maxLength(most, `${name} has at most ${most} characters.`));

export const LibraryComponent = v.object({
	kind: v.picklist(COMPONENT_KINDS, `The kind is one of: ${COMPONENT_KINDS.join(', ')}.`),
	name: v.pipe(text('The name', 120), v.nonEmpty('A component needs a name.')),
	versions: v.optional(
		v.pipe(v.array(v.pipe(text('A version', 40), v.nonEmpty('A version is empty.'))), v.maxLength(100)),
		[]
	),
	prices: v.optional(v.pipe(v.array(PriceRule), v.maxLength(20, 'At most 20 tiers.')), []),
	/** Exclusive jobs that it does. */
	jobs: v.optional(v.array(v.picklist(EXCLUSIVE_JOBS, `Jobs are: ${EXCLUSIVE_JOBS.join(', ')}.`)), []),
	features: v.optional(
		v.pipe(v.array(v.pipe(text('A feature', 80), v.nonEmpty('A feature is empty.'))), v.maxLength(100)),
		[]
	),
	/** Settings kept as files, by name. */
	settings: v.optional(
		v.pipe(
			v.array(
				v.object({
					name: v.pipe(text('A file name', 120), v.nonEmpty('Name the file.')),
					text: text('The settings', 200_000)
				})
			),
			v.maxLength(20)
		),
		[]
	),
	recognition: v.optional(Recognition, NO_RECOGNITION),
	note: v.optional(text('The note', 2000), '')
});
export type LibraryComponent = v.InferOutput<typeof LibraryComponent>;
