/** Put before the script by the server that hands it out. */
export interface ScriptSettings {
	key: string;
	token: string;
	/** Share of page views that report. */
	sampling: number;
	/** Names of User Timing marks and measures. */
	timings: string[];
	goals: string[];
	handOver: HandOverSettings | null;
}

export interface HandOverSettings {
	/** Path of a function from the page's global object. */
	call: string;
	nameField: string;
	valueField: string;
	quietField: string;
	/** Names of events by metric. */
	events: Record<string, string>;
}
