/** The large lists of a sheet travel as one text: it is written and read many times faster than as the page's data. */
import type { SheetView } from '$lib/server/trials/sheetView';

type Large = Pick<SheetView, 'loads' | 'judgement' | 'evidence'>;
export type PackedSheet = Omit<SheetView, keyof Large> & { packed: string };

export function packSheet({ loads, judgement, evidence, ...rest }: SheetView): PackedSheet {
	return { ...rest, packed: JSON.stringify({ loads, judgement, evidence } satisfies Large) };
}

export function unpackSheet<Sheet extends PackedSheet>({ packed, ...rest }: Sheet): Omit<Sheet, 'packed'> & Large {
	return { ...rest, ...(JSON.parse(packed) as Large) };
}
