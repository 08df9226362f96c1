/** What reports say: beside the words of answers, those of their blocks. No screen but the composer needs them. */
import { en, type ClientKey, type EvidenceKey } from './messages/en';
import { es } from './messages/es';
import { evidenceEs } from './messages/evidenceEs';
import { findings } from './messages/findings';
import { findingsEs } from './messages/findingsEs';
import { report } from './messages/report';
import { reportEs } from './messages/reportEs';
import type { FindingWords } from './findings';
import { wordsFrom, type Language, type Words } from './words';

export type ReportKey = ClientKey | EvidenceKey | keyof typeof report;
export type ReportWords = Words<ReportKey>;

const ENGLISH: ReportWords = wordsFrom<ReportKey>('en', { ...en, ...report });
const SPANISH: ReportWords = wordsFrom<ReportKey>('es', { ...es, ...evidenceEs, ...reportEs });

/** In the report's language. */
export function reportWordsIn(language: Language): ReportWords {
	return language === 'es' ? SPANISH : ENGLISH;
}

/** What conditions are called in a report: those that ship have a name in each language, others the analyst's. */
export function conditionsIn(words: ReportWords, name: string): string {
	if (name === 'Phone') return words.say('report.conditions.phone');
	return name === 'Desktop' ? words.say('report.conditions.desktop') : name;
}

const FINDINGS: Record<Language, FindingWords> = { en: wordsFrom('en', findings), es: wordsFrom('es', findingsEs) };

export const findingWordsIn = (language: Language): FindingWords => FINDINGS[language];
