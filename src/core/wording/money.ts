/** Amounts of money, always with their currency. */
import type { Language } from './words';

/** "29 €" or "€29", as the language has it. @param currency ISO 4217 */
export function wordMoney(amount: number, currency: string, language: Language = 'en'): string {
	const locale = language === 'es' ? 'es' : 'en-GB';
	const digits = Number.isInteger(amount) ? 0 : 2;
	const format = { style: 'currency', currency, minimumFractionDigits: digits, maximumFractionDigits: digits } as const;
	return new Intl.NumberFormat(locale, format).format(amount);
}
