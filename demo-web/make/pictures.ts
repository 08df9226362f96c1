/** Photographs of nowhere: drawn scenes with grain, so that they compress like photographs. Same name, same bytes. */
import { mkdir, readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import { randomFrom, seedOf, type Random } from './random';

export interface PictureOptions {
	width: number;
	height: number;
	/** Three colours: far, middle, near. */
	palette: readonly [string, string, string];
	scene: 'sea' | 'field' | 'hall' | 'object';
	format: 'jpeg' | 'webp' | 'png';
	quality: number;
}

/** Changes whenever the drawing changes, so that old files are not served. */
const DRAWING_VERSION = 3;

export class PictureMaker {
	#made = new Map<string, Promise<Buffer>>();

	constructor(private readonly folder: string) {}

	/** The picture of that name, drawn once and kept in the folder. */
	get(name: string, options: PictureOptions): Promise<Buffer> {
		const { width, height, format, quality } = options;
		const key = `${name.replace(/[^a-z0-9]+/gi, '-')}-v${DRAWING_VERSION}-${width}x${height}-q${quality}.${format}`;
		let made = this.#made.get(key);
		if (!made) {
			made = this.#load(key, name, options);
			this.#made.set(key, made);
		}
		return made;
	}

	async #load(key: string, name: string, options: PictureOptions): Promise<Buffer> {
		const path = join(this.folder, key);
		try {
			return await readFile(path);
		} catch {
			const picture = await draw(name, options);
			await mkdir(this.folder, { recursive: true });
			await writeFile(path, picture);
			return picture;
		}
	}
}

async function draw(name: string, { width, height, palette, scene, format, quality }: PictureOptions): Promise<Buffer> {
	const random = randomFrom(seedOf(name, scene));
	const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 1000 600" preserveAspectRatio="none">${sceneOf(scene, palette, random)}</svg>`;
	const { data, info } = await sharp(Buffer.from(svg)).removeAlpha().raw().toBuffer({ resolveWithObject: true });
	addGrain(data, random);
	const picture = sharp(data, { raw: { width: info.width, height: info.height, channels: 3 } });
	if (format === 'webp') return picture.webp({ quality, effort: 3 }).toBuffer();
	if (format === 'png') return picture.png({ compressionLevel: 6 }).toBuffer();
	return picture.jpeg({ quality }).toBuffer();
}

/** Sensor-like noise, the same in all three channels and a little coarse. */
function addGrain(pixels: Buffer, random: Random): void {
	let held = 0;
	for (let i = 0; i < pixels.length; i += 3) {
		held = held * 0.45 + (random() + random() - 1) * 17;
		for (let channel = 0; channel < 3; channel++)
			pixels[i + channel] = Math.max(0, Math.min(255, pixels[i + channel]! + held));
	}
}

/** What a scene is drawn with. */
interface Canvas {
	sky: string;
	middle: string;
	near: string;
	random: Random;
	/** A row of hills or islands. */
	ridge(base: number, height: number, colour: string): string;
}

function sceneOf(
	scene: PictureOptions['scene'],
	[far, middle, near]: PictureOptions['palette'],
	random: Random
): string {
	const sky = `<defs><linearGradient id="s" x2="0" y2="1"><stop offset="0" stop-color="${far}"/><stop offset="1" stop-color="#f4ead6"/></linearGradient></defs><rect width="1000" height="600" fill="url(#s)"/>`;
	const ridge = (base: number, height: number, colour: string) => {
		const points = Array.from({ length: 26 }, (_, i) => `${i * 40},${base - random() * height}`).join(' ');
		return `<polygon points="0,600 ${points} 1000,600" fill="${colour}"/>`;
	};
	return SCENES[scene]({ sky, middle, near, random, ridge });
}

function seaScene({ sky, middle, near, random, ridge }: Canvas): string {
	const waves = Array.from({ length: 90 }, () => {
		const y = 360 + random() * 240;
		const x = random() * 1000;
		return `<path d="M${x} ${y} q 20 -8 40 0" stroke="#ffffff" stroke-opacity="${0.15 + random() * 0.4}" stroke-width="2" fill="none"/>`;
	}).join('');
	const x = 300 + random() * 300;
	const boat = `<polygon points="${x},330 ${x + 190},330 ${x + 165},375 ${x + 20},375" fill="${near}"/><rect x="${x + 40}" y="290" width="100" height="42" fill="#f7f3ea"/><rect x="${x + 80}" y="255" width="22" height="38" fill="${near}"/>`;
	return (
		sky +
		ridge(350, 130, middle) +
		`<rect y="350" width="1000" height="250" fill="${near}" opacity="0.55"/>` +
		waves +
		boat
	);
}

function fieldScene({ sky, middle, near, random, ridge }: Canvas): string {
	const rows = Array.from(
		{ length: 14 },
		(_, i) =>
			`<path d="M${500 + (i - 7) * 12} 320 L${500 + (i - 7) * 170} 600" stroke="${near}" stroke-width="${10 + (i % 3) * 6}"/>`
	).join('');
	const leaves = Array.from({ length: 220 }, () => {
		const y = 340 + random() * 260;
		return `<ellipse cx="${random() * 1000}" cy="${y}" rx="${(y - 300) / 22}" ry="${(y - 300) / 40}" fill="${random() > 0.5 ? near : middle}"/>`;
	}).join('');
	return sky + ridge(330, 90, middle) + `<rect y="325" width="1000" height="275" fill="#6b5335"/>` + rows + leaves;
}

function hallScene({ sky, middle, near, random }: Canvas): string {
	const arches = Array.from(
		{ length: 7 },
		(_, i) => `<path d="M${i * 150 - 20} 600 v-330 a65 65 0 0 1 130 0 v330z" fill="${i % 2 ? middle : near}"/>`
	).join('');
	const lights = Array.from(
		{ length: 24 },
		() =>
			`<circle cx="${random() * 1000}" cy="${random() * 240}" r="${4 + random() * 12}" fill="#fff3c9" opacity="0.8"/>`
	).join('');
	return sky + arches + lights + `<rect y="520" width="1000" height="80" fill="${near}"/>`;
}

function clockScene({ sky, middle, near, random }: Canvas): string {
	const clocks = Array.from({ length: 5 }, (_, i) => {
		const r = 60 + random() * 90;
		const [x, y] = [90 + i * 200 + random() * 60, 150 + random() * 260];
		const hand = (length: number, turn: number, width: number) =>
			`<line x1="${x}" y1="${y}" x2="${x + r * length * Math.cos(turn)}" y2="${y + r * length * Math.sin(turn)}" stroke="#2b2118" stroke-width="${width}" stroke-linecap="round"/>`;
		const hours = Array.from({ length: 12 }, (_, h) => {
			const [c, s] = [Math.cos((h * Math.PI) / 6), Math.sin((h * Math.PI) / 6)];
			return `<line x1="${x + r * 0.76 * c}" y1="${y + r * 0.76 * s}" x2="${x + r * 0.86 * c}" y2="${y + r * 0.86 * s}" stroke="#2b2118" stroke-width="4"/>`;
		}).join('');
		return `<circle cx="${x}" cy="${y}" r="${r}" fill="${random() > 0.5 ? middle : near}"/><circle cx="${x}" cy="${y}" r="${r * 0.9}" fill="#fbf5e3"/>${hours}${hand(0.5, random() * 6.28, 8)}${hand(0.72, random() * 6.28, 5)}<circle cx="${x}" cy="${y}" r="${r * 0.07}" fill="${near}"/>`;
	}).join('');
	return sky + `<rect y="430" width="1000" height="170" fill="${near}" opacity="0.6"/>` + clocks;
}

const SCENES: Record<PictureOptions['scene'], (canvas: Canvas) => string> = {
	sea: seaScene,
	field: fieldScene,
	hall: hallScene,
	object: clockScene
};
