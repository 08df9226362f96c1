/** What could be saved of an audit's files: worked out one by one, in short turns, so that no load waits long. */
import { NO_BODY_FACTS, type BodyFacts } from '$core/findings/bodyFacts';
import type { Db } from '../../../base/db/connection';
import { findBody } from '../../loads/loads';
import { bodyFactsOf, insertBodyFacts } from '../queries/bodies';
import { fontFacts } from '../../../../../lab/files/font';
import { pictureFacts } from '../../../../../lab/files/picture';
import { saveSavingsProgress, type SavingsProgress } from './progress';
import {
	cut,
	helpersIn,
	minified,
	packed,
	textKind,
	writesDocument,
	type TextKind
} from '../../../../../lab/files/text';
import { neededPixels, usedFiles, type UsedFile, type UsedFiles } from './uses';

/** A turn begins no further file after so long, ms. */
const TURN_MS = 2000;
/** Pictures and fonts of fewer bytes save nothing that is worth a line (the design: 5 kB). */
const LEAST_BYTES = 5000;

/** One turn. @returns how far it is: all is done when `done` is `total` */
export async function computeSavings(db: Db, auditId: number): Promise<SavingsProgress> {
	const until = performance.now() + TURN_MS;
	const used = usedFiles(db, auditId);
	const known = bodyFactsOf(db, auditId);
	const open = used.files.filter(({ urls }) => urls.some((url) => !known.has(url)));
	let done = used.files.length - open.length;
	for (const file of open) {
		if (performance.now() > until) break;
		const facts = await factsOfFile(db, file, used);
		db.transaction(() => {
			for (const url of file.urls) insertBodyFacts(db, auditId, url, facts);
		}).immediate();
		done++;
	}
	const progress = { done, total: used.files.length };
	saveSavingsProgress(db, auditId, progress);
	return progress;
}

async function factsOfFile(db: Db, file: UsedFile, used: UsedFiles): Promise<BodyFacts> {
	const bytes = findBody(db, file.at.load, file.at.position) ?? Buffer.alloc(0);
	const blank = { hash: file.hash, bytes: bytes.length, ...NO_BODY_FACTS };
	try {
		return { ...blank, ...(await partOf(bytes, file, used)) };
	} catch (error) {
		return { ...blank, ...(await packedAlone(bytes, file)), fault: (error as Error).message.slice(0, 200) };
	}
}

async function partOf(bytes: Buffer, file: UsedFile, used: UsedFiles): Promise<Partial<BodyFacts>> {
	const kind = textKind(file.type, file.media);
	if (kind) return textFacts(bytes.toString(), kind, file);
	if (bytes.length < LEAST_BYTES) return {};
	if (file.type === 'image') return { picture: await pictureFacts(bytes, (own) => neededPixels(own, file.places)) };
	if (file.type !== 'font') return {};
	const families = new Set(file.urls.flatMap((url) => [...(used.faces.get(url) ?? [])]));
	return { font: await fontFacts(bytes, [...families], used.drawn) };
}

async function textFacts(text: string, kind: TextKind, { unused }: UsedFile): Promise<Partial<BodyFacts>> {
	const isCode = kind === 'script' || kind === 'style';
	return {
		packed: await packed(text),
		cut: isCode && unused.length ? await packed(cut(kind, text, unused)) : null,
		...(kind === 'script' ? { helpers: helpersIn(text), writesDocument: writesDocument(text, unused) } : {}),
		minified: await packed(await minified(kind, text))
	};
}

/** Of a text that its minifier cannot read the rest is told all the same. */
async function packedAlone(bytes: Buffer, { type, media, unused }: UsedFile): Promise<Partial<BodyFacts>> {
	const kind = textKind(type, media);
	if (!kind) return {};
	const text = bytes.toString();
	const isCode = kind === 'script' || kind === 'style';
	return { packed: await packed(text), cut: isCode && unused.length ? await packed(cut(kind, text, unused)) : null };
}
