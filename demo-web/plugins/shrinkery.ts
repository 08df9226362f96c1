/**
 * Shrinkery: lighter images. First level: WebP. Second: also cut to the size shown, below the first screen loaded late.
 * Third: everything late, no dimensions.
 */
import type { Picture } from '../content/model';
import type { ImageTag } from '../builders/render';
import { escapeHtml } from '../builders/render';
import type { ShrinkeryLevel } from '../state/switches';

type Role = Parameters<ImageTag>[1];

/** Widest that a picture is shown in its place, CSS pixels. */
const SHOWN: Record<Role, number> = { hero: 1080, wide: 1080, card: 360, gallery: 360 };

export interface ImageFile {
	name: string;
	width: number;
	height: number;
	format: 'jpeg' | 'webp';
	quality: number;
}

export function imageFile(picture: Picture, role: Role, level: ShrinkeryLevel): ImageFile {
	const width = level === 'size' || level === 'late' ? Math.min(picture.width, SHOWN[role]) : picture.width;
	const height = Math.round((picture.height * width) / picture.width);
	const quality = { off: 86, format: 76, size: 72, late: 45 }[level];
	return { name: picture.name, width, height, format: level === 'off' ? 'jpeg' : 'webp', quality };
}

export function imagePath({ name, width, height, format, quality }: ImageFile): string {
	return `/img/${name}-${width}x${height}-q${quality}.${format === 'jpeg' ? 'jpg' : format}`;
}

const PATH = /^\/img\/([a-z0-9-]+)-(\d+)x(\d+)-q(\d+)\.(jpg|webp)$/;

export function parseImagePath(path: string): ImageFile | null {
	const match = PATH.exec(path);
	if (!match) return null;
	const [, name, width, height, quality, extension] = match;
	return {
		name: name!,
		width: Number(width),
		height: Number(height),
		quality: Number(quality),
		format: extension === 'jpg' ? 'jpeg' : 'webp'
	};
}

/** The picture tag of a site at that level. @param base where files come from */
export function imageTagOf(level: ShrinkeryLevel, base: string): ImageTag {
	return (picture, role, dimensions) => {
		const file = imageFile(picture, role, level);
		const late = level === 'late' || (level === 'size' && role !== 'hero' && role !== 'wide');
		const sized = dimensions && level !== 'late';
		return `<img src="${base}${imagePath(file)}" alt="${escapeHtml(picture.alt)}"${sized ? ` width="${file.width}" height="${file.height}"` : ''}${late ? ' loading="lazy"' : ''}>`;
	};
}
