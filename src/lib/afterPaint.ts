/** Work that a press need not wait for: first its control shows that it was pressed. Needs a browser. */
export function afterPaint(work: () => void): void {
	requestAnimationFrame(() => setTimeout(work));
}
