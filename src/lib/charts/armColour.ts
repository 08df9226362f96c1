/** The colour of an arm by its place among the arms, the same wherever the arm appears. The baseline is always ink. */
export interface ColouredArm {
	id: number;
	baseline: boolean;
}

const COLOURS = 7;

export function armColour(arms: readonly ColouredArm[], id: number): string {
	if (arms.find((arm) => arm.id === id)?.baseline) return 'var(--ink)';
	const place = arms.filter((arm) => !arm.baseline).findIndex((arm) => arm.id === id);
	return `var(--arm-${(place % COLOURS) + 1})`;
}
