/** Why Chromium does not start, in words, from what the start said. */
const KNOWN: readonly [RegExp, string][] = [
	[
		/EMFILE|ENFILE|too many open files/i,
		'this machine lets Zafra open no more files; raise the limit with “ulimit -n”'
	],
	[/ENOMEM|cannot allocate memory/i, 'there is not enough memory left'],
	[/ENOSPC|no space left|disk full/i, 'the disk is full'],
	[/EAGAIN|resource temporarily unavailable/i, 'this machine lets Zafra start no more processes'],
	[/EACCES|permission denied/i, 'it may not be run by this account'],
	[/ENOENT/i, 'its program file has gone'],
	[/shared librar/i, 'a library that it needs is missing'],
	[/timeout|timed out/i, 'it did not answer within 30 s']
];

export function startProblem(message: string): string {
	const cause = KNOWN.find(([pattern]) => pattern.test(message));
	return cause ? cause[1] : message.split('\n')[0]!.slice(0, 200);
}
