/** What a job, something derived or a file is about: a row of a room's table. */
export type SubjectKind =
	'trial' | 'arm' | 'client' | 'site' | 'audit' | 'report' | 'watch' | 'reading' | 'load' | 'agency' | 'nobody';

/** Stored as two columns. */
export interface Subject {
	kind: SubjectKind;
	/** Of the row; 0 for nobody. */
	id: number;
}

/** Of a load that was asked for on behalf of no client. */
export const NOBODY: Subject = { kind: 'nobody', id: 0 };
