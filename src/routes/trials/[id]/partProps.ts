import type { SheetHead } from '$lib/server/rooms/trials/sheet/head';
import type { PartId } from '$lib/server/rooms/trials/sheet/lines';
import type { SheetPart } from '$lib/server/rooms/trials/sheet/parts';

/** What every part may need; `data` is the head of the sheet with what belongs to the part. */
export interface PartProps<Id extends PartId> {
	data: SheetHead & SheetPart<Id>;
	status: string;
	condition: SheetHead['conditions'][number];
	pair: SheetHead['comparisons'][number];
	/** The variants that are drawn: of a sweep those of one page at a time. */
	drawn: SheetHead['arms'];
	nameOf: (arm: number) => string;
	colourOf: (arm: number) => string;
}
