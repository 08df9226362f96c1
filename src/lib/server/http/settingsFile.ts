import { NotPossible } from '../base/refusal';

const MOST_BYTES = 1_000_000;

/** A file of settings in a form. @returns null where none was chosen @throws NotPossible for one that is too large */
export async function settingsFileOf(form: FormData): Promise<{ name: string; text: string } | null> {
	const file = form.get('file');
	if (!(file instanceof File) || file.size === 0) return null;
	if (file.size > MOST_BYTES)
		throw new NotPossible(413, 'The settings file is larger than 1 MB: export the settings alone.', 'file');
	return { name: file.name.slice(0, 200), text: await file.text() };
}
