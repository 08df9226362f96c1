/** Whether a picture has as many pixels as the screen shows of it. */
import type { ImageFact } from '../record/pageRecord';

/**
 * Pixels of the file for each pixel of the screen that shows it; a screen has `pixelRatio` squared of them in a CSS
 * pixel (CSS Values 4, "reference pixel"). @returns null for what is not loaded or not shown
 */
export function pixelExcess(
	image: Pick<ImageFact, 'naturalWidth' | 'naturalHeight' | 'shownWidth' | 'shownHeight'>,
	pixelRatio: number
): number | null {
	const shown = image.shownWidth * image.shownHeight * pixelRatio ** 2;
	const own = image.naturalWidth * image.naturalHeight;
	return shown > 0 && own > 0 ? own / shown : null;
}
