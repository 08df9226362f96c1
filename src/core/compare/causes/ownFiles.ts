/** The site's own files: recoded ones (RFC 9110, section 8.4: content codings), and each kind of the others. */
import type { Part } from '../breakdowns';
import type { LoadDigest } from '../digest';
import { isOwn, sumOfShifts, type CauseRule, type Compared } from './cause';

const RECODED = 1.5;

/** Own text files that are now sent under another content coding. */
export const compressionCauses: CauseRule = (compared) => {
	const { files, codings } = recodedFiles(compared);
	if (!files.length) return [];
	const [from, to] = codings(files[0]!.key);
	return [
		{
			kind: 'compression',
			subject: 'compression',
			metric: 'wire',
			shift: sumOfShifts(files),
			values: { files: files.length, from, to },
			factor: RECODED
		}
	];
};

/** Kinds of own files, by their type tag. */
const GROUPS = [
	['images', 'img'],
	['scripts', 'js'],
	['styles', 'css'],
	['fonts', 'font'],
	['document', 'html']
] as const;

/** What changed of each kind of own files, recoded text left out. */
export const fileCauses: CauseRule = (compared) => {
	const recoded = recodedFiles(compared).files;
	return GROUPS.map(([subject, kind]) => {
		const moved = compared.files.filter(
			(file) => isOwn(file) && file.kind === kind && file.state !== 'alike' && !recoded.includes(file)
		);
		const count = (state: Part['state']) => moved.filter((file) => file.state === state).length;
		return {
			kind: 'files',
			subject,
			metric: 'wire',
			shift: sumOfShifts(moved),
			values: { group: subject, added: count('added'), gone: count('gone'), changed: count('changed') }
		};
	});
};

function recodedFiles({ before, after, files }: Compared) {
	const [was, is] = [codingsOf(before), codingsOf(after)];
	const codings = (key: string): [string, string] => [was.get(key) ?? 'none', is.get(key) ?? 'none'];
	const recoded = files.filter(
		(file) => isOwn(file) && file.state === 'changed' && was.get(file.key) !== is.get(file.key)
	);
	return { files: recoded, codings };
}

function codingsOf(loads: readonly LoadDigest[]): Map<string, string> {
	return new Map(loads.flatMap((load) => load.files.map((file) => [file.key, file.encoding] as const)));
}
