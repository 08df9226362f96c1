/** The agency's own name, colour, contact and logo. */
import sharp from 'sharp';
import { drawnElements } from '$core/formats/svgWeight';
import type { Db } from '../../base/db/connection';
import { NotPossible } from '../../base/refusal';
import { artifactSize, deleteArtifacts, findArtifact, storeArtifact } from '../../base/storage/artifacts';

const OWNER = { kind: 'agency', id: 1 } as const;

const MOST_LOGO_BYTES = 2_000_000;

/** Twice the size at which it is shown. */
const LOGO_HEIGHT = 120;

const LOGO_WIDTH = 640;

export const hasLogo = (db: Db) => artifactSize(db, { owner: OWNER, role: 'logo' }) > 0;

export const findLogo = (db: Db) => findArtifact(db, { owner: OWNER, role: 'logo' });

export function deleteLogo(db: Db): void {
	deleteArtifacts(db, OWNER, 'logo');
}

/**
 * Drawn to pixels, whatever it was: a picture of an SVG has no scripts, links or styles left.
 * @throws NotPossible for what is no picture, or too large
 */
export async function saveLogo(db: Db, bytes: Uint8Array): Promise<void> {
	if (bytes.length > MOST_LOGO_BYTES)
		throw new NotPossible(413, 'The logo is larger than 2 MB: send a smaller file.', 'logo');
	checkWeight(bytes);
	const image = await sharp(bytes, { limitInputPixels: 40_000_000, density: 192 })
		.resize({ width: LOGO_WIDTH, height: LOGO_HEIGHT, fit: 'inside', withoutEnlargement: false })
		.png()
		.toBuffer()
		.catch(() => {
			throw new NotPossible(422, 'This is no picture that can be read: send a PNG or an SVG.', 'logo');
		});
	storeArtifact(db, { owner: OWNER, role: 'logo' }, 'image/png', image);
}

/** Far beyond any logo (house); drawing so many takes a moment. */
const MOST_DRAWN = 20_000;

/** @throws NotPossible for an SVG whose parts repeat parts without end */
function checkWeight(bytes: Uint8Array): void {
	const text = Buffer.from(bytes).toString('utf8');
	if (!/<svg[\s>]/i.test(text.slice(0, 5000))) return;
	let drawn: number;
	try {
		drawn = drawnElements(text);
	} catch {
		throw new NotPossible(422, 'This is no picture that can be read: send a PNG or an SVG.', 'logo');
	}
	if (drawn > MOST_DRAWN)
		throw new NotPossible(
			422,
			`This SVG repeats its parts so often that it has over ${MOST_DRAWN.toLocaleString('en-GB')} of them: export it with plain paths, or send a PNG.`,
			'logo'
		);
}
