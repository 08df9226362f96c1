/**
 * One direction of a shared link, in virtual time: segments of all flows leave one after another at the link's rate,
 * fairly in turn; each arrives half a round trip later and is acknowledged after another half. A flow may have a
 * window of bytes under way; the window starts at 10 segments (RFC 6928) and grows by every acknowledged byte, so it
 * doubles each round trip (slow start without loss).
 *
 * Timers of the host fire late by a millisecond or two. The link therefore reckons in exact virtual times and catches
 * up on each tick: lateness touches single deliveries, never the rate.
 */

export const SEGMENT_BYTES = 1460;
export const FIRST_WINDOW_BYTES = 10 * SEGMENT_BYTES;

/**
 * Deliveries due within this time are made at once: the host's timers come 1 to 2 ms late, so that errors centre on
 * zero.
 */
const TICK_SLACK_MS = 1.5;

export interface LinkOptions {
	bytesPerMs: number;
}

interface LinkEvent {
	at: number;
	run: (at: number) => void;
}

/** Of one flow alone: its host may lie nearer or further than others. */
export interface Way {
	/** From a segment's departure to its acknowledgement, ms: the window turns by it. */
	roundTripMs: number;
	/** What the link adds to each segment's journey, ms; less than half a round trip where the real way takes some. */
	delayMs: number;
}

/** Bytes of one connection in one direction. */
export interface Flow {
	/** Bytes waiting to enter the link. */
	readonly queuedBytes: number;
	/** Add bytes at the sending end. */
	send(chunk: Buffer): void;
	/** No more bytes: `onEnd` runs when the last one has arrived. */
	end(): void;
	/** Forget everything still under way. */
	drop(): void;
}

interface FlowState {
	way: Way;
	chunks: Buffer[];
	queued: number;
	underWay: number;
	window: number;
	ended: boolean;
	endSent: boolean;
	dropped: boolean;
	onData: (chunk: Buffer) => void;
	onEnd: () => void;
	onDrain: () => void;
}

export class Link {
	#options: LinkOptions;
	#flows: FlowState[] = [];
	#turn = 0;
	#freeAt = 0;
	/** A look at the moment when the wire is free is due. */
	#isWaiting = false;
	#events: LinkEvent[] = [];
	#timer: NodeJS.Timeout | null = null;
	#now: () => number;

	constructor(options: LinkOptions, now: () => number = () => performance.now()) {
		this.#options = options;
		this.#now = now;
	}

	open(handlers: Pick<FlowState, 'onData' | 'onEnd' | 'onDrain'>, way: Way): Flow {
		const state: FlowState = {
			way,
			chunks: [],
			queued: 0,
			underWay: 0,
			window: FIRST_WINDOW_BYTES,
			ended: false,
			endSent: false,
			dropped: false,
			...handlers
		};
		this.#flows.push(state);
		const kick = () => this.#catchUp(() => this.#transmit(this.#now()));
		return {
			get queuedBytes() {
				return state.queued;
			},
			send: (chunk) => {
				if (state.dropped || chunk.length === 0) return;
				state.chunks.push(chunk);
				state.queued += chunk.length;
				kick();
			},
			end: () => {
				state.ended = true;
				kick();
			},
			drop: () => {
				state.dropped = true;
				state.chunks = [];
				state.queued = 0;
				this.#remove(state);
			}
		};
	}

	close(): void {
		if (this.#timer) clearTimeout(this.#timer);
		this.#events = [];
		this.#flows = [];
	}

	#remove(state: FlowState): void {
		const index = this.#flows.indexOf(state);
		if (index < 0) return;
		this.#flows.splice(index, 1);
		if (index < this.#turn) this.#turn--;
	}

	/** Look again once the wire is free: the look that was due then may have come a moment early, and found nothing. */
	#transmitWhenFree(): void {
		if (this.#isWaiting) return;
		this.#isWaiting = true;
		this.#at(this.#freeAt, (time) => {
			this.#isWaiting = false;
			this.#transmit(time);
		});
	}

	/** Put the next segment on the wire if the wire is free, and again when it is. */
	#transmit(at: number): void {
		if (this.#freeAt > at) return this.#transmitWhenFree();
		const count = this.#flows.length;
		for (let i = 0; i < count; i++) {
			const index = (this.#turn + i) % count;
			const flow = this.#flows[index]!;
			const size = Math.min(SEGMENT_BYTES, flow.queued);
			if (size === 0 && flow.ended && !flow.endSent) {
				flow.endSent = true;
				this.#at(at + flow.way.delayMs, () => {
					this.#remove(flow);
					if (!flow.dropped) flow.onEnd();
				});
			}
			if (size === 0 || flow.underWay + size > flow.window) continue;
			this.#turn = (index + 1) % count;
			this.#putOnWire(flow, size, at);
			return;
		}
	}

	#putOnWire(flow: FlowState, size: number, at: number): void {
		const segment = takeBytes(flow, size);
		const { roundTripMs, delayMs } = flow.way;
		flow.underWay += size;
		this.#freeAt = at + size / this.#options.bytesPerMs;
		this.#transmitWhenFree();
		this.#at(this.#freeAt + delayMs, () => {
			if (!flow.dropped) flow.onData(segment);
		});
		this.#at(this.#freeAt + roundTripMs, (time) => {
			flow.underWay -= size;
			flow.window += size;
			this.#transmit(time);
		});
		flow.onDrain();
	}

	/** Events run in order of their time; a binary search keeps the list sorted. */
	#at(at: number, run: (at: number) => void): void {
		let low = 0;
		let high = this.#events.length;
		while (low < high) {
			const middle = (low + high) >> 1;
			if (this.#events[middle]!.at <= at) low = middle + 1;
			else high = middle;
		}
		this.#events.splice(low, 0, { at, run });
	}

	/** Run what is due, then `more`, then wait for what comes next. */
	#catchUp(more?: () => void): void {
		this.#runDue();
		more?.();
		this.#runDue();
		if (this.#timer) clearTimeout(this.#timer);
		this.#timer = null;
		const next = this.#events[0];
		if (next) this.#timer = setTimeout(() => this.#catchUp(), Math.max(0, next.at - this.#now() - TICK_SLACK_MS));
	}

	#runDue(): void {
		const until = this.#now() + TICK_SLACK_MS;
		while (this.#events.length && this.#events[0]!.at <= until) {
			const event = this.#events.shift()!;
			event.run(event.at);
		}
	}
}

function takeBytes(flow: FlowState, size: number): Buffer {
	const parts: Buffer[] = [];
	let missing = size;
	while (missing > 0) {
		const head = flow.chunks[0]!;
		if (head.length <= missing) {
			parts.push(head);
			flow.chunks.shift();
			missing -= head.length;
		} else {
			parts.push(head.subarray(0, missing));
			flow.chunks[0] = head.subarray(missing);
			missing = 0;
		}
	}
	flow.queued -= size;
	return parts.length === 1 ? parts[0]! : Buffer.concat(parts, size);
}
