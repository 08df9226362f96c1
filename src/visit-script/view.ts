/** One page view: of the document, of a route change, or of a page that came back from the back/forward cache. */
export interface View {
	/** Given when it is first sent. */
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

/** Of one page view alone: two of one visitor have nothing in common. */
export const newId = () =>
	Array.from(crypto.getRandomValues(new Uint32Array(3)), (part) => part.toString(36))
		.join('-')
		.padEnd(8, '0');

/** Most views are of the address in the bar: the first use of `URL` is a few milliseconds of a slow phone. */
const pathOf = (url: string) => (url === location.href ? location.pathname : new URL(url, location.href).pathname);

export function newView(navigation: string, url: string, began: number): OpenView {
	return {
		sent: {
			id: '',
			sending: 0,
			path: cut(pathOf(url)),
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
