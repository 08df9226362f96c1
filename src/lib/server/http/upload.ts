/** A file that is sent as the body of a request: put on the disk as it comes, read from there, and taken away. */
import { randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { mkdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { NotPossible } from '../base/refusal';

/** @param folder of the data @throws NotPossible for an empty body */
export async function withUpload<Result>(
	request: Request,
	folder: string,
	work: (file: string) => Promise<Result>
): Promise<Result> {
	if (!request.body) throw new NotPossible(400, 'Nothing was sent. Choose a file.', 'file');
	const uploads = join(folder, 'uploads');
	await mkdir(uploads, { recursive: true });
	const file = join(uploads, randomUUID());
	try {
		await pipeline(Readable.fromWeb(request.body as never), createWriteStream(file));
		return await work(file);
	} finally {
		await rm(file, { force: true });
	}
}
