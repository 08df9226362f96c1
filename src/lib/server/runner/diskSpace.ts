/** Whether an error says that there is no more room on the disk. */
export function isFull(error: unknown): boolean {
	const { code } = error as { code?: string };
	return code === 'SQLITE_FULL' || code === 'ENOSPC' || code === 'SQLITE_IOERR_WRITE';
}
