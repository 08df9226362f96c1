import type { OwnerColours } from '$lib/charts/ownerColour';
import type { Form } from '$lib/server/http/form';
import type { TapFields } from '$lib/server/rooms/loads/form';
import type { LoadPartId } from '$lib/server/rooms/loads/partLines';
import type { LoadHead, LoadPart } from '$lib/server/rooms/loads/view';

/** What every part may need; `data` is the head of the sheet with what belongs to the part. */
export interface PartProps<Id extends LoadPartId> {
	data: LoadHead & LoadPart<Id>;
	device: { width: number; height: number };
	colours: OwnerColours;
	frameUrl: (index: number) => string;
	lines: { name: string; atMs: number }[];
	/** Where the time axis ends. */
	endMs: number;
	tapForm: Form<typeof TapFields>;
}
