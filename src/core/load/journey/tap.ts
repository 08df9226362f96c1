/** Early taps: a control pressed while the page is still loading. Did it work, how late, had it moved? */
import * as v from 'valibot';
import { about } from '../record/described';

/** After the first contentful paint, ms (house). */
export const TAP_MOMENTS = [0, 1000, 3000] as const;
/** How long the effect of a tap is waited for, ms (house). */
export const EFFECT_WITHIN_MS = 10_000;

const words = (what: string) =>
	v.pipe(v.string(what), v.trim(), v.nonEmpty(what), v.maxLength(500, 'At most 500 characters.'));

export const Tap = v.object({
	/** The control. */
	selector: words('Name the control by a selector.'),
	/** What must be there once it worked. */
	effect: words('Name what must appear, by a selector or by words.'),
	effectIs: v.picklist(['selector', 'text'], 'The effect is a “selector” or a “text”.'),
	/** After the first contentful paint, ms. */
	afterMs: v.pipe(v.number('A time in ms.'), v.minValue(0, 'A time in ms.'), v.maxValue(30_000, 'At most 30 s.'))
});
export type Tap = v.InferOutput<typeof Tap>;

export const TapRecord = v.object({
	selector: v.string(),
	afterMs: about('Wanted time after the first contentful paint.', v.number()),
	atMs: about(
		'When it was pressed, ms since the navigation; null when there was nothing to press.',
		v.nullable(v.number())
	),
	state: about(
		'Of the control where the finger came down: there, moved away since it was aimed at, covered by something else, or not on the page.',
		v.picklist(['there', 'moved', 'covered', 'missing'])
	),
	movedPx: about('How far it had moved since it was aimed at, CSS pixels.', v.number()),
	effectMs: about('From the press until the effect was there; null when it never came.', v.nullable(v.number())),
	responseMs: about(
		'From the press to the next paint (Event Timing); null when the page did not handle it.',
		v.nullable(v.number())
	)
});
export type TapRecord = v.InferOutput<typeof TapRecord>;

/** An effect within this of the press feels like one's own doing (house: the good INP twice over). */
const PROMPT_MS = 400;

export type TapVerdict = 'works' | 'late' | 'lost' | 'moved' | 'covered' | 'missing';

/** What a visitor gets who presses then. */
export function tapVerdict({ state, effectMs }: Pick<TapRecord, 'state' | 'effectMs'>): TapVerdict {
	if (state !== 'there') return state;
	if (effectMs === null) return 'lost';
	return effectMs <= PROMPT_MS ? 'works' : 'late';
}
