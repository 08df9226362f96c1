import type { BlockKind } from './document';

/** A name for a new block that no other has: "text-2". */
export function freeId(kind: BlockKind, taken: readonly { id: string }[]): string {
	for (let n = 1; ; n++) {
		const id = `${kind}-${n}`;
		if (!taken.some((block) => block.id === id)) return id;
	}
}
