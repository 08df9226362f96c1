/** What sheets say of their parts, their loads and their machine, in English: for the server alone. */
import { parts, type PartKey } from './messages/parts';
import { wordsFrom, type Words } from './words';

export const PART_WORDS: Words<PartKey> = wordsFrom('en', parts);
