import { answering, idFrom } from '$lib/server/access/api';
import { pictureAnswer } from '$lib/server/access/loads';
import { getDb } from '$lib/server/context';
import { findFrame } from '$lib/server/db/loads';

/** Frames are numbered from 1. */
export const GET = ({ params }) =>
	answering(() => pictureAnswer(findFrame(getDb(), idFrom(params.id, 'load'), idFrom(params.position, 'frame') - 1)));
