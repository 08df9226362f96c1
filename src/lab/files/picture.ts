/** Pictures encoded anew, as small as they stay alike. */
import sharp, { type Sharp } from 'sharp';
import { ssim } from 'ssim.js';
import { LEAST_LIKENESS, type Encoded, type PictureFacts, type PictureFormat } from '$core/findings/bodyFacts';

/** Larger ones are compared at this size: likeness of more pixels takes too long and says the same (house). */
const MOST_COMPARED = 1_000_000;
/** Qualities that are tried, from the worst. */
const QUALITIES = [40, 50, 60, 70, 80, 90] as const;
/** Pictures beyond this are told as they are. */
const MOST_PIXELS = 40_000_000;

const FORMATS: Readonly<Record<string, PictureFormat>> = {
	jpeg: 'jpeg',
	png: 'png',
	webp: 'webp',
	heif: 'avif',
	avif: 'avif',
	gif: 'gif'
};

/** Effort 2 of AVIF: half of what more effort saves, in a tenth of its time. */
const ENCODERS = {
	jpeg: (picture: Sharp, quality: number) => picture.jpeg({ quality, mozjpeg: true }),
	png: (picture: Sharp, quality: number) => picture.png({ quality, palette: quality < 90, effort: 7 }),
	webp: (picture: Sharp, quality: number) => picture.webp({ quality, effort: 4 }),
	avif: (picture: Sharp, quality: number) => picture.avif({ quality, effort: 2 })
} satisfies Partial<Record<PictureFormat, (picture: Sharp, quality: number) => Sharp>>;

interface Size {
	width: number;
	height: number;
}

/**
 * @param needed device pixels of its largest place, from `neededPixels`; null where none is known
 * @throws Error for a picture that cannot be decoded
 */
export async function pictureFacts(bytes: Buffer, needed: (own: Size) => Size | null): Promise<PictureFacts | null> {
	const { format = '', width = 0, height = 0, pages = 1 } = await sharp(bytes, { pages: -1 }).metadata();
	const own = FORMATS[format];
	// Of several pages the height is that of all.
	const size = { width, height: Math.round(height / pages) };
	if (!own || !size.width || size.width * size.height > MOST_PIXELS) return null;
	const place = needed(size);
	const known = { format: own, ...size, needed: place, isAnimated: pages > 1 };
	if (pages > 1) return { ...known, encoded: [] };
	const target = place && place.width * place.height < size.width * size.height ? place : size;
	return { ...known, encoded: await encodings(bytes, target, own) };
}

async function encodings(bytes: Buffer, target: Size, own: PictureFormat): Promise<Encoded[]> {
	const reference = await scaled(bytes, target);
	const compared = comparedSize(target);
	const wanted = await pixelsOf(reference, compared);
	const formats = [...new Set([own === 'gif' ? 'png' : own, 'webp', 'avif'] as const)];
	const found: Encoded[] = [];
	for (const format of formats) {
		const encoded = await smallestAlike(reference, format, { compared, wanted });
		if (encoded && encoded.length < bytes.length) found.push({ format, ...target, bytes: encoded.length });
	}
	return found;
}

/** The picture scaled to a size, without loss. */
const scaled = (bytes: Buffer, { width, height }: Size): Promise<Buffer> =>
	sharp(bytes).rotate().resize(width, height, { fit: 'fill' }).png({ compressionLevel: 1 }).toBuffer();

function comparedSize({ width, height }: Size): Size {
	const by = Math.min(1, Math.sqrt(MOST_COMPARED / (width * height)));
	return { width: Math.max(16, Math.round(width * by)), height: Math.max(16, Math.round(height * by)) };
}

interface Raw extends Size {
	data: Uint8ClampedArray;
}

/** On white: what lies under see-through pixels says nothing. */
async function pixelsOf(bytes: Buffer, { width, height }: Size): Promise<Raw> {
	const data = await sharp(bytes)
		.flatten({ background: '#fff' })
		.resize(width, height, { fit: 'fill' })
		.ensureAlpha()
		.toColourspace('srgb')
		.raw()
		.toBuffer();
	return { data: new Uint8ClampedArray(data), width, height };
}

/** The lowest quality that is like the reference; likeness grows with quality. Null where not even the best is. */
async function smallestAlike(
	reference: Buffer,
	format: keyof typeof ENCODERS,
	{ compared, wanted }: { compared: Size; wanted: Raw }
): Promise<Buffer | null> {
	let [low, high] = [0, QUALITIES.length - 1];
	let best: Buffer | null = null;
	while (low <= high) {
		const middle = (low + high) >> 1;
		const encoded = await ENCODERS[format](sharp(reference), QUALITIES[middle]!).toBuffer();
		if (likeness(wanted, await pixelsOf(encoded, compared)) >= LEAST_LIKENESS) {
			best = encoded;
			high = middle - 1;
		} else low = middle + 1;
	}
	return best;
}

/** Mean SSIM (Wang et al. 2004). */
export const likeness = (a: Raw, b: Raw): number => ssim(a, b).mssim;

const MEDIA: Readonly<Record<keyof typeof ENCODERS, string>> = {
	jpeg: 'image/jpeg',
	png: 'image/png',
	webp: 'image/webp',
	avif: 'image/avif'
};

export interface PictureWanted {
	/** Both or neither: its own size. */
	width?: number | undefined;
	height?: number | undefined;
	/** Its own where none is named. */
	format?: keyof typeof ENCODERS | undefined;
	/** The lowest that stays alike where none is named. */
	quality?: number | undefined;
}

/**
 * A picture as it is wanted. @returns null where it cannot be made so: moving pictures, drawings, what is not read, and
 * what would not be like the original at any quality
 */
export async function madePicture(
	bytes: Buffer,
	{ width, height, format, quality }: PictureWanted
): Promise<{ bytes: Buffer; media: string } | null> {
	const found = await sharp(bytes, { pages: -1 })
		.metadata()
		.catch(() => null);
	const own = found && FORMATS[found.format ?? ''];
	if (!own || (found.pages ?? 1) > 1 || (found.width ?? 0) * (found.height ?? 0) > MOST_PIXELS) return null;
	const target = width && height ? { width, height } : { width: found.width, height: found.height };
	const as = format ?? (own === 'gif' ? 'png' : own);
	const reference = await scaled(bytes, target);
	const compared = comparedSize(target);
	const made = quality
		? await ENCODERS[as](sharp(reference), quality).toBuffer()
		: await smallestAlike(reference, as, { compared, wanted: await pixelsOf(reference, compared) });
	return made && { bytes: made, media: MEDIA[as] };
}
