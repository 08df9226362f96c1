import sharp from 'sharp';
import { answering, idFrom } from '$lib/server/http/api';
import { pictureAnswer } from '$lib/server/rooms/loads/answer';
import { findFrame } from '$lib/server/rooms/loads/loads';

/** Frames are numbered from 1; `?format=png` for tools that do not read WebP. */
export const GET = ({ locals, params, url }) =>
	answering(async () => {
		const frame = findFrame(locals.db, idFrom(params.id, 'load'), idFrom(params.position, 'frame') - 1);
		if (frame && url.searchParams.get('format') === 'png')
			return pictureAnswer(await sharp(frame).png().toBuffer(), 'image/png');
		return pictureAnswer(frame);
	});
