/** One page view: of the document, of a route change, or of a page that came back from the back/forward cache. */
export interface View {
	id: string;
	sending: number;
	path: string;
	navigation: string;
	metrics: Record<string, number>;
	origins: Record<string, { target: string; url?: string; parts?: number[] }>;
	timings: Record<string, number>;
	goals: string[];
}

/** What the script keeps of it beside what is sent. */
export interface OpenView {
	sent: View;
	/** When it began, on the page's clock. */
	began: number;
	/** When its goals were reached, on the page's clock. */
	times: Record<string, number>;
	isChanged: boolean;
	isHandedOver: boolean;
}

const LONGEST_TEXT = 200;

export const cut = (text = '') => text.slice(0, LONGEST_TEXT);
export const round = (value: number) => Math.round(value * 10) / 10;

export function newView(navigation: string, url: string, began: number): OpenView {
	// Of this page view alone: two of one visitor have nothing in common.
	const parts = Array.from(crypto.getRandomValues(new Uint32Array(3)), (part) => part.toString(36));
	return {
		sent: {
			id: parts.join('-').padEnd(8, '0'),
			sending: 0,
			path: cut(new URL(url, location.href).pathname),
			navigation,
			metrics: {},
			origins: {},
			timings: {},
			goals: []
		},
		began,
		times: {},
		isChanged: true,
		isHandedOver: false
	};
}
