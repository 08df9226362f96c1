/** The door for addresses that the lab shall open, the same for trials and loads. */
import * as v from 'valibot';
import { isWebAddress } from './address';

const WORDS =
	'This is not a web address. Write it in full, with http:// or https://, ' +
	'without a user name or password: these belong into the conditions.';

export const WebAddress = v.pipe(
	v.string('Give an address.'),
	v.trim(),
	v.nonEmpty('Give an address.'),
	v.maxLength(2000, 'An address has at most 2,000 characters.'),
	v.check(isWebAddress, WORDS)
);
