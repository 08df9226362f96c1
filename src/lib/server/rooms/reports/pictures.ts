/** Pictures of reports: of a frozen version its own copies, of a draft those of its loads. */
import type { Db } from '../../base/db/connection';
import { findFrame } from '../loads/loads';
import { findArtifact } from '../../base/storage/artifacts';
import { findLogo } from './agency';

/** @param key as the report's view names it */
export function findReportPicture(db: Db, versionId: number, key: string): Buffer | null {
	return findArtifact(db, { owner: { kind: 'report', id: versionId }, role: `picture/${key}` });
}

export function findDraftPicture(db: Db, key: string): Buffer | null {
	if (key === 'logo') return findLogo(db);
	const [kind, load, position] = key.split('/');
	return kind === 'frame' ? findFrame(db, Number(load), Number(position)) : null;
}
