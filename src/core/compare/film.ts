/** The frames of one load that stand for an arm. */
export interface Film {
	arm: number;
	/** The load whose LCP is nearest to the arm's median. */
	load: number;
	frames: { atMs: number; progress: number }[];
	lcpMs: number | null;
	shiftsMs: number[];
	/** CSS pixels of the viewport. */
	width: number;
	height: number;
}
