import type { Language } from './words';

const JOIN = '\u00a0';

/** A figure as its language writes it: Spanish has a comma for decimals and a space between thousands (RAE). */
export function localNumber(text: string, language: Language): string {
	if (language === 'en') return text;
	return text.replace(/(\d),(?=\d{3})/g, `$1${JOIN}`).replace(/(\d)\.(?=\d)/g, '$1,');
}
