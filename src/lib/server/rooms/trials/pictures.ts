/** How two finished pages differ to the eye. */
import pixelmatch from 'pixelmatch';
import sharp from 'sharp';
import { middleLoad } from '$core/compare/middleLoad';
import type { Db } from '../../base/db/connection';
import { findPicture } from '../loads/loads';
import type { LoadSummary } from '../loads/view';

interface RawPicture {
	data: Buffer;
	width: number;
	height: number;
}

export interface PictureDifference {
	/** Share of the compared pixels that differ, 0 to 1. */
	share: number;
	/** WebP: the arm's page, pale, with what differs marked on it. */
	image: Buffer;
}

/** Pixels that differ beyond this are seen as different (pixelmatch's scale; house). */
const THRESHOLD = 0.15;
/** Pictures of each arm that show what moves by itself from load to load. */
const MASK_PICTURES = 4;
const MARK = [0x8a, 0x2e, 0x4f, 230];

/**
 * The finished pages of both arms in their middle loads; what differs anyway between loads of one arm does not count.
 * @returns null when a picture is missing or their sizes differ
 */
export async function comparePictures(
	db: Db,
	baseline: readonly LoadSummary[],
	arm: readonly LoadSummary[]
): Promise<PictureDifference | null> {
	const [before, after] = [await seen(db, baseline), await seen(db, arm)];
	if (!before || !after || !isSameSize(before.middle, after.middle)) return null;
	const moving = movingPixels([before, after]);
	const differing = differingPixels(before.middle, after.middle);
	let differ = 0;
	let compared = 0;
	for (let i = 0; i < moving.length; i++) {
		if (moving[i]) differing[i] = 0;
		else compared++;
		differ += differing[i]!;
	}
	return { share: compared ? differ / compared : 0, image: await markedPicture(after.middle, differing) };
}

interface Seen {
	middle: RawPicture;
	others: RawPicture[];
}

async function seen(db: Db, loads: readonly LoadSummary[]): Promise<Seen | null> {
	const pictured = loads.filter((load) => load.hasPicture);
	const load = middleLoad(pictured);
	const middle = load && (await rawPicture(db, load.id));
	if (!load || !middle) return null;
	const others: RawPicture[] = [];
	for (const other of pictured.filter(({ id }) => id !== load.id).slice(0, MASK_PICTURES)) {
		const picture = await rawPicture(db, other.id);
		if (picture && isSameSize(picture, middle)) others.push(picture);
	}
	return { middle, others };
}

async function rawPicture(db: Db, loadId: number): Promise<RawPicture | null> {
	const picture = findPicture(db, loadId);
	if (!picture) return null;
	const { data, info } = await sharp(picture).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
	return { data, width: info.width, height: info.height };
}

function isSameSize(a: RawPicture, b: RawPicture): boolean {
	return a.width === b.width && a.height === b.height;
}

/** 1 for each pixel that differs between two pictures of the same size. */
function differingPixels(a: RawPicture, b: RawPicture): Uint8Array {
	const { width, height } = a;
	const marks = Buffer.alloc(width * height * 4);
	pixelmatch(a.data, b.data, marks, width, height, { threshold: THRESHOLD, diffMask: true });
	return Uint8Array.from({ length: width * height }, (_, i) => (marks[i * 4 + 3] ? 1 : 0));
}

/** 1 for each pixel that differs between loads of one arm. */
function movingPixels(arms: readonly Seen[]): Uint8Array {
	const { width, height } = arms[0]!.middle;
	const moving = new Uint8Array(width * height);
	for (const { middle, others } of arms)
		for (const other of others) differingPixels(middle, other).forEach((differs, i) => differs && (moving[i] = 1));
	return moving;
}

async function markedPicture({ data, width, height }: RawPicture, differing: Uint8Array): Promise<Buffer> {
	const raw = { width, height, channels: 4 as const };
	const pale = await sharp(data, { raw }).modulate({ saturation: 0.2 }).linear(0.45, 140).png().toBuffer();
	const marks = Buffer.alloc(width * height * 4);
	differing.forEach((differs, i) => differs && marks.set(MARK, i * 4));
	return sharp(pale)
		.composite([{ input: marks, raw }])
		.webp({ quality: 60 })
		.toBuffer();
}
