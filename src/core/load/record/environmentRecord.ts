/** What a record says of the machine, the browser and the line around its load. */
import * as v from 'valibot';
import { about } from './described';

/** How busy the machine was with something else. */
export const BusyShares = v.object({
	stolen: about(
		'Processor time that the host gave to other machines, of all that was wanted (stolen / (busy + stolen)); 0 to 1.',
		v.number()
	),
	foreign: about(
		'Processor time of processes that have nothing to do with the load, of all that was wanted; 0 to 1.',
		v.number()
	),
	samples: v.number(),
	stopped: about('Samples at which a process that works for the load was stopped from outside.', v.number())
});
export type BusyShares = v.InferOutput<typeof BusyShares>;

const SAMPLES = v.array(v.number());

/** The machine beside the load, sample by sample: processor time in ms within each, over all processors. */
export const CalmTrack = v.object({
	endsMs: about('End of each sample, ms since the navigation began.', SAMPLES),
	busyMs: about('What this machine had.', SAMPLES),
	stolenMs: about('Wanted and given to other machines by the host; null where it does not tell.', v.nullable(SAMPLES)),
	foreignMs: about(
		'Of processes that have nothing to do with the load; null where it does not tell.',
		v.nullable(SAMPLES)
	),
	pressureMs: about('Time in which something waited for a processor; null where not shown.', v.nullable(SAMPLES))
});
export type CalmTrack = v.InferOutput<typeof CalmTrack>;

/** What the lab knows of the machine around a load. */
export const CalmRecord = v.object({
	track: CalmTrack,
	share: about(
		'Stolen and foreign share of the processor time wanted, from navigation to settled; 0 to 1.',
		v.nullable(v.number())
	),
	burst: about('The same in the worst half second.', v.nullable(v.number())),
	disturbed: about('The machine was too busy with something else: the load is kept and not counted.', v.boolean()),
	waitedMs: about('How long the lab waited for a calm machine before it.', v.number()),
	gaveUp: about('It was not calm when the wait was over.', v.boolean()),
	frequencyMhz: about('Clock of the processors; null where not shown.', v.nullable(v.number()))
});
export type CalmRecord = v.InferOutput<typeof CalmRecord>;

/** The real way to a host, which the lab took off the round trip that it adds. */
export const PathRecord = v.object({
	host: v.string(),
	realMs: about('Quickest real connection to it during the load, ms.', v.number()),
	wantedMs: about('Round trip that the conditions ask for.', v.number())
});
export type PathRecord = v.InferOutput<typeof PathRecord>;

export const EnvironmentRecord = v.object({
	browser: v.string(),
	userAgent: v.string(),
	machineSpeed: about(
		'Rounds of the calibration loop per ms, without slowdown, before and after the load.',
		v.object({
			before: v.nullable(v.number()),
			after: v.nullable(v.number())
		})
	),
	slowdown: about('CPU slowdown that was applied; 1 is none.', v.number()),
	reachedSpeed: about('Speed reached under that slowdown.', v.nullable(v.number())),
	network: about(
		'Connections open at once, and what the line carried in each direction, TLS and all; null when not known.',
		v.nullable(
			v.object({
				mostConnections: v.number(),
				upBytes: v.number(),
				downBytes: v.number()
			})
		)
	),
	sandboxed: about('Whether the page ran in Chromium’s sandbox; null when not known.', v.nullable(v.boolean())),
	busy: about(
		'How busy the machine was with something else during the load; null where it does not tell.',
		v.nullable(BusyShares)
	),
	calm: about('The machine around this load; null for a record from elsewhere or from before.', v.nullable(CalmRecord)),
	paths: about('Real ways that are longer than nothing; empty when not known.', v.array(PathRecord)),
	visitor: about('State of the visitor: signed in, basket filled; null for an anonymous one.', v.nullable(v.string())),
	switches: about('Switches that the browser was started with; empty when not known.', v.array(v.string())),
	notes: about('What the lab has to say about this load.', v.array(v.string()))
});
export type EnvironmentRecord = v.InferOutput<typeof EnvironmentRecord>;
