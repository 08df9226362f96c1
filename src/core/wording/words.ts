/** Messages with their values filled in: the only place where keys become sentences. */
import { IntlMessageFormat } from 'intl-messageformat';
import { en, type ClientKey, type EvidenceKey, type MessageKey } from './messages/en';
import { es } from './messages/es';

/** English is complete; in other languages what a client reads is. */
export type Language = 'en' | 'es';

export type MessageValues = Record<string, string | number>;

/** The words of one language. */
export interface Words<Key extends string = ClientKey> {
	readonly language: Language;
	/** @throws Error when a value that the message needs is missing */
	say(key: Key, values?: MessageValues): string;
	/** "a, b and c" */
	list(items: readonly string[]): string;
}

/** Words for what evidence says. */
export type EvidenceWords = Words<EvidenceKey>;

const LOCALES: Record<Language, string> = { en: 'en-GB', es: 'es' };

/** @param messages in the language, complete for their keys */
export function wordsFrom<Key extends string>(language: Language, messages: Record<Key, string>): Words<Key> {
	const formats = new Map<Key, IntlMessageFormat>();
	// Made at first use: the browser loads a language's rules then, and most screens list nothing.
	let lists: Intl.ListFormat | undefined;
	const formatOf = (key: Key) => {
		const formatValue =
			formats.get(key) ?? new IntlMessageFormat(messages[key], LOCALES[language], undefined, { ignoreTag: true });
		formats.set(key, formatValue);
		return formatValue;
	};
	return {
		language,
		say: (key, values = {}) => String(formatOf(key).format(values)),
		list: (items) => (lists ??= new Intl.ListFormat(LOCALES[language], { type: 'conjunction' })).format(items)
	};
}

/** All that Zafra says. */
export const ENGLISH: Words<MessageKey> = wordsFrom('en', en);
const SPANISH: Words = wordsFrom('es', es);

/** What a client reads, in the client's language. */
export function wordsIn(language: Language): Words {
	return language === 'es' ? SPANISH : ENGLISH;
}
