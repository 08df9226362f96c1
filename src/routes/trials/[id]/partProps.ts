import type { SheetView } from '$lib/server/rooms/trials/sheetView';

/** What every part may need. */
export interface PartProps extends Record<string, unknown> {
	data: SheetView;
	evidence: NonNullable<SheetView['evidence']>['arms'][number] | null;
	status: string;
	condition: SheetView['conditions'][number];
	pair: SheetView['comparisons'][number];
	drawn: SheetView['arms'];
	nameOf: (arm: number) => string;
	colourOf: (arm: number) => string;
}
