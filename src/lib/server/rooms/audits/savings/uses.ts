/** The files of an audit, each content once, with where it is used and what of it. */
import type { KeptFile } from '$core/load/record/bodies';
import { sharedSpans, type Span } from '$core/load/requests/coverage';
import type { Db } from '../../../base/db/connection';
import { bodyHashes, findBodies, findBody, findRecord } from '../../loads/loads';
import { loadsOfAudit } from '../queries/audits';
import { facesIn, stylesIn } from './faces';

export interface Size {
	width: number;
	height: number;
}

/** A place of a picture: device pixels, or a box that it covers or lies within. */
type Place = Size & { fit: 'exact' | 'cover' | 'contain' };

export interface UsedFile extends Pick<KeptFile, 'type' | 'media'> {
	hash: string;
	urls: string[];
	/** Where its bytes are: a load, and the position in the list of what came. */
	at: { load: number; position: number };
	/** Of no use in any load that has it. */
	unused: Span[];
	places: Place[];
}

export interface UsedFiles {
	files: UsedFile[];
	/** Signs that are drawn, by family in small letters. */
	drawn: Map<string, Set<string>>;
	/** Family names by address of a font. */
	faces: Map<string, Set<string>>;
}

interface Gathered extends UsedFiles {
	byHash: Map<string, UsedFile & { unusedBy: Span[][] }>;
	places: Map<string, Place[]>;
}

export function usedFiles(db: Db, auditId: number): UsedFiles {
	const gathered: Gathered = { files: [], drawn: new Map(), faces: new Map(), byHash: new Map(), places: new Map() };
	for (const { load, status } of loadsOfAudit(db, auditId)) if (status === 'ok') gather(db, load, gathered);
	const { drawn, faces, byHash, places } = gathered;
	const files = [...byHash.values()].map(({ unusedBy, ...file }) => ({
		...file,
		unused: sharedSpans(unusedBy),
		places: file.urls.flatMap((url) => places.get(url) ?? [])
	}));
	return { files, drawn, faces };
}

function gather(db: Db, load: number, gathered: Gathered): void {
	const kept = findBodies(db, load);
	if (!kept) return;
	const record = findRecord(db, load);
	const ratio = record?.conditions?.device.pixelRatio ?? 1;
	const addPlace = (url: string, place: Place) =>
		gathered.places.set(url, [...(gathered.places.get(url) ?? []), place]);
	for (const { url, shownWidth, shownHeight } of record?.page?.images ?? [])
		if (shownWidth * shownHeight > 0)
			addPlace(url, { width: Math.ceil(shownWidth * ratio), height: Math.ceil(shownHeight * ratio), fit: 'exact' });
	for (const { url, width, height, fit } of kept.drawn?.backgrounds ?? [])
		addPlace(url, { width: Math.ceil(width * ratio), height: Math.ceil(height * ratio), fit });
	for (const { families, signs } of kept.drawn?.text ?? [])
		for (const family of families.map((name) => name.toLowerCase()))
			gathered.drawn.set(family, new Set([...(gathered.drawn.get(family) ?? []), ...signs]));
	const hashes = bodyHashes(db, load);
	kept.files.forEach((file, position) => {
		const hash = hashes.get(position);
		if (hash) addFile(db, gathered, file, { hash, load, position });
	});
}

function addFile(
	db: Db,
	{ byHash, faces }: Gathered,
	{ url, type, media, unused }: KeptFile,
	{ hash, load, position }: { hash: string; load: number; position: number }
): void {
	const before = byHash.get(hash);
	if (before) {
		if (!before.urls.includes(url)) before.urls.push(url);
		before.unusedBy.push(unused);
		return;
	}
	byHash.set(hash, {
		hash,
		urls: [url],
		type,
		media,
		at: { load, position },
		unused: [],
		unusedBy: [unused],
		places: []
	});
	if (type !== 'stylesheet' && type !== 'document') return;
	const text = findBody(db, load, position)?.toString() ?? '';
	for (const [font, families] of facesIn(type === 'document' ? stylesIn(text) : text, url))
		faces.set(font, new Set([...(faces.get(font) ?? []), ...families]));
}

/** Device pixels that the largest of its places shows of a picture; null where no place is known. */
export function neededPixels(own: Size, places: readonly Place[]): Size | null {
	const needed = places.map(({ width, height, fit }) => {
		if (fit === 'exact') return { width, height };
		const scales = [width / own.width, height / own.height] as const;
		const scale = fit === 'cover' ? Math.max(...scales) : Math.min(...scales);
		return { width: Math.ceil(own.width * scale), height: Math.ceil(own.height * scale) };
	});
	return needed.length ? needed.reduce((a, b) => (b.width * b.height > a.width * a.height ? b : a)) : null;
}
