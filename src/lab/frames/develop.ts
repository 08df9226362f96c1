/** From raw screencast frames to distinct, small, dated pictures with their visual progress. */
import { createHash } from 'node:crypto';
import sharp from 'sharp';
import type { FrameRecord } from '$core/load/record/record';
import { colourHistogram, visualProgress, type ColourHistogram } from '$core/load/vitals/visual';
import type { RawFrame } from './screencast';

sharp.cache(false);

export interface DevelopedFrames {
	records: FrameRecord[];
	images: Uint8Array[];
	/** First frame that differs from the blank page, ms; null when nothing was ever painted. */
	startRenderMs: number | null;
}

/**
 * Frames before time zero show the blank page: only the last of them is kept, at 0. Frames equal to the one before
 * are left out.
 * @param zeroEpochMs the page's time zero
 */
export async function developFrames(raw: readonly RawFrame[], zeroEpochMs: number): Promise<DevelopedFrames> {
	const ordered = [...raw].sort((a, b) => a.at - b.at);
	const lastBefore = ordered.findLastIndex((frame) => frame.at <= zeroEpochMs);
	const relevant = ordered.slice(Math.max(0, lastBefore));
	const kept: { atMs: number; histogram: ColourHistogram; image: Uint8Array }[] = [];
	let previous = '';
	for (const frame of relevant) {
		const picture = sharp(frame.image);
		const { data } = await picture.clone().removeAlpha().raw().toBuffer({ resolveWithObject: true });
		const print = createHash('sha1').update(data).digest('base64');
		if (print === previous) continue;
		previous = print;
		kept.push({
			atMs: Math.max(0, Math.round((frame.at - zeroEpochMs) * 10) / 10),
			histogram: colourHistogram(data, 3),
			image: await picture.webp({ quality: 55, effort: 2 }).toBuffer()
		});
	}
	const progress = visualProgress(kept.map((frame) => frame.histogram));
	return {
		records: kept.map((frame, i) => ({ atMs: frame.atMs, progress: Math.round(progress[i]! * 10_000) / 10_000 })),
		images: kept.map((frame) => frame.image),
		startRenderMs: kept[1]?.atMs ?? null
	};
}
