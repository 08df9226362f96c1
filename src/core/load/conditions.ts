/** How a page is loaded. Conditions are plain records, frozen into a trial when it is made. */

export interface DeviceConditions {
	/** Viewport in CSS pixels. */
	width: number;
	height: number;
	pixelRatio: number;
	touch: boolean;
	mobile: boolean;
	/**
	 * Speed to reach, in rounds of the lab's calibration loop per ms; null leaves the machine as it is.
	 * A speed and not a multiplier, so that a phone means the same on every machine.
	 */
	targetSpeed: number | null;
	userAgent: string | null;
}

export interface NetworkConditions {
	/** Round trip in ms; half of it is spent each way. */
	roundTripMs: number;
	/** Link rates in kbit/s (1000 bit), shared by all connections. */
	downKbps: number;
	upKbps: number;
	/** Time of a first look-up of each host, ms. */
	dnsMs: number;
}

export interface Conditions {
	/** Key in URLs and the API: `phone`, `desktop`. */
	id: string;
	/** As printed: "Phone", "Desktop". */
	name: string;
	/** One sentence for the client. */
	summary: string;
	device: DeviceConditions;
	network: NetworkConditions;
	/** Longest time a load may take until it counts as capped, ms. */
	capMs: number;
	/** How long the page must be quiet to count as settled, ms. */
	quietMs: number;
}

const PHONE: Conditions = {
	id: 'phone',
	name: 'Phone',
	summary: 'A mid-range phone on mobile broadband',
	device: {
		width: 412,
		height: 823,
		pixelRatio: 2.6,
		touch: true,
		mobile: true,
		targetSpeed: 45,
		userAgent:
			'Mozilla/5.0 (Linux; Android 14; ZafraPhone) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/{major}.0.0.0 Mobile Safari/537.36'
	},
	network: { roundTripMs: 120, downKbps: 9000, upKbps: 3000, dnsMs: 0 },
	capMs: 45_000,
	quietMs: 2000
};

const DESKTOP: Conditions = {
	id: 'desktop',
	name: 'Desktop',
	summary: 'An office desktop on cable',
	device: { width: 1366, height: 768, pixelRatio: 1, touch: false, mobile: false, targetSpeed: null, userAgent: null },
	network: { roundTripMs: 30, downKbps: 40_000, upKbps: 10_000, dnsMs: 0 },
	capMs: 45_000,
	quietMs: 2000
};

/** The conditions that ship with Zafra (house). */
export const BUILT_IN_CONDITIONS: readonly Conditions[] = [PHONE, DESKTOP];

/** One line that says all that matters: viewport, network, CPU. */
export function describeConditions({ device, network }: Conditions): string {
	const mbit = (kbps: number) => String(Number((kbps / 1000).toFixed(1)));
	const cpu = device.targetSpeed === null ? 'CPU of the machine' : `CPU held to ${device.targetSpeed} loops/ms`;
	return `${device.width} × ${device.height}, ${device.pixelRatio}×${device.touch ? ', touch' : ''}; ${network.roundTripMs} ms round trip, ${mbit(network.downKbps)}/${mbit(network.upKbps)} Mbit/s; ${cpu}`;
}
