/** Pictures of a page: one pixel per CSS pixel, whatever the device's own ratio. */
import type { CDPSession } from 'playwright-core';
import type { Conditions } from '$core/load/conditions/conditions';

const PICTURE_QUALITY = 60;

/** WebP of the viewport, or of the document's top; null where none could be taken. */
export async function pictureOf(
	session: CDPSession,
	device: Conditions['device'],
	height: number | null
): Promise<Buffer | null> {
	const { width } = device;
	const { cssVisualViewport } = await session.send('Page.getLayoutMetrics');
	const { pageX: x, pageY: y } = cssVisualViewport;
	const clip =
		height === null ? { x, y, width, height: device.height, scale: 1 } : { x: 0, y: 0, width, height, scale: 1 };
	const shot = { format: 'webp', quality: PICTURE_QUALITY, clip, captureBeyondViewport: height !== null } as const;
	return session.send('Page.captureScreenshot', shot).then(
		({ data }) => Buffer.from(data, 'base64'),
		() => null
	);
}
