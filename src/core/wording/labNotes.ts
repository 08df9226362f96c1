/** What the lab says of a load beside its figures: the machine was slow, the line was full. */
import { wordsFrom } from './words';

const NOTES = wordsFrom('en', {
	'gave-up': 'The machine did not become calm within {seconds} s; the load was made all the same.',
	'slow-machine':
		'This machine ({machine} loops/ms) is slower than the device it should stand for ({target} loops/ms).',
	'other-speed': 'The page ran at {reached} loops/ms, where the device it should stand for has {target}.',
	disturbed:
		'The machine was busy with something else: of the processor time wanted around this load, {stolen} went to other machines on the same host and {foreign} to other programs. Times may be too long.',
	outage:
		'On purpose, {hosts} {how, select, slow {answered 3 s late} refused {refused every connection} other {never answered}} during this load.',
	far: 'The real way to {hosts}: the line cannot be made shorter.',
	'far-host': '{host} takes {real} ms, {wanted} ms were wanted',
	sockets: 'The page wanted {n} or more connections at once; through the lab’s network the browser opens no more.',
	private: 'The page asked for {hosts}: private or local addresses, which pages may not reach from the lab. Refused.'
});

/** A note of the lab by its code, with what it names as text. */
export const labNote = NOTES.say;
