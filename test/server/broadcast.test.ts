import { expect } from 'chai';
import { eventStream } from '../../src/lib/server/desk/events';
import { Broadcast } from '../../src/lib/server/desk/broadcast';
import { createTrial } from '../../src/lib/server/rooms/trials/commands';
import { trialInput, useQueue } from '../support/queue';

describe('telling listeners', () => {
	it('reaches all, and a dead one keeps nothing from the others', () => {
		const broadcast = new Broadcast();
		const heard: string[] = [];
		broadcast.add(() => {
			throw new Error('closed');
		});
		broadcast.add((message) => heard.push(message));
		broadcast.tell('one');
		broadcast.tell('two');
		expect(heard).to.deep.equal(['one', 'two']);
		expect(broadcast.size).to.equal(1);
	});

	it('lets one go that leaves while it is told', () => {
		const broadcast = new Broadcast();
		const heard: string[] = [];
		const leaving = () => broadcast.remove(leaving);
		broadcast.add(leaving);
		broadcast.add((message) => heard.push(message));
		broadcast.tell('one');
		expect([heard, broadcast.size]).to.deep.equal([['one'], 1]);
	});
});

describe('events for open pages', () => {
	const queue = useQueue();

	/** Messages of a stream until one fits. */
	async function until(reader: ReadableStreamDefaultReader<Uint8Array>, fits: RegExp): Promise<string> {
		for (let part = await reader.read(); !part.done; part = await reader.read()) {
			const text = new TextDecoder().decode(part.value);
			if (fits.test(text)) return text;
		}
		return '';
	}

	it('begin with how things stand, follow what changes, and go on when another page leaves', async () => {
		const { db } = queue.now;
		const [leaving, staying] = [new AbortController(), new AbortController()];
		const first = eventStream(db, leaving.signal).getReader();
		const second = eventStream(db, staying.signal).getReader();
		expect(await until(first, /progress/)).to.match(/"trials":\[\]/);
		expect(await until(second, /progress/)).to.match(/"trials":\[\]/);
		await first.cancel();
		leaving.abort();
		createTrial(db, trialInput());
		expect(await until(second, /"id":1/)).to.match(/"status":"draft"/);
		await second.cancel();
	});
});
