/** To another address of the same sheet, once its data have come. */
import { goto, preloadData } from '$app/navigation';
import { live } from './live.svelte';

/**
 * Where nobody answers, the sheet stays as it is and the line above says so; a plain `goto` would leave it for the
 * browser's own page of an error.
 * @param isThere whether what was asked for is in the data: without an answer they are the old ones
 */
export async function gotoLoaded(
	address: string,
	isThere: (data: Record<string, unknown>) => boolean
): Promise<boolean> {
	const answer = await preloadData(address);
	if (answer.type === 'loaded' && !isThere(answer.data)) {
		live.noteUnreachable();
		return false;
	}
	await goto(address, { replaceState: true, noScroll: true, keepFocus: true });
	return true;
}
