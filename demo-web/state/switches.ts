/** Everything that can be switched on a site, with words for people. */
export const PARTY_MODES = ['absent', 'normal', 'slow', 'refused', 'silent'] as const;
export type PartyMode = (typeof PARTY_MODES)[number];
export const LEVELS = ['off', 'gentle', 'firm', 'all-out'] as const;
export type Level = (typeof LEVELS)[number];
export const BUILDERS = ['mortise', 'lathwork', 'patchboard', 'plainstem'] as const;
export type BuilderName = (typeof BUILDERS)[number];

export interface SiteState {
	builder: BuilderName;
	https: boolean;
	larder: Level;
	secondCache: boolean;
	hushbox: Level;
	shrinkery: Level;
	share: 'none' | 'row' | 'column';
	chat: PartyMode | 'later';
	ads: PartyMode | 'reserved';
	counting: PartyMode;
	fonts: PartyMode | 'blocking';
	shareCounts: PartyMode;
	hosting: 'shared' | 'virtual' | 'dedicated';
	hour: number;
	coldStart: boolean;
	cdn: boolean;
	compression: boolean;
	httpCaching: boolean;
	sniffing: boolean;
	consent: boolean;
	orders: boolean;
	accounts: boolean;
	visits: boolean;
}

export interface Switch {
	name: keyof SiteState;
	words: string;
	values: readonly (string | boolean)[] | { from: number; to: number };
}

const ON_OFF = [false, true] as const;

export const SWITCHES: readonly Switch[] = [
	{ name: 'builder', words: 'The page builder that renders the content', values: BUILDERS },
	{ name: 'https', words: 'Served at https:// (off: an old host without it)', values: ON_OFF },
	{ name: 'larder', words: 'Larder: page cache and file squeezing', values: LEVELS },
	{ name: 'secondCache', words: 'A second page cache beside Larder: they get in each other’s way', values: ON_OFF },
	{ name: 'hushbox', words: 'Hushbox: holds scripts back until the first input', values: LEVELS },
	{ name: 'shrinkery', words: 'Shrinkery: lighter images, loaded late', values: LEVELS },
	{
		name: 'share',
		words: 'Share buttons: none, the row plugin or the column plugin',
		values: ['none', 'row', 'column']
	},
	{
		name: 'chat',
		words: 'Parlour Bell, the chat: “later” starts it by a timer, 5 s after the page has loaded',
		values: [...PARTY_MODES, 'later']
	},
	{
		name: 'ads',
		words: 'Hoarding Row, ads: “reserved” keeps room and never fills it',
		values: [...PARTY_MODES, 'reserved']
	},
	{ name: 'counting', words: 'Stilewatch, visit counting', values: PARTY_MODES },
	{
		name: 'fonts',
		words: 'Serifhouse, fonts: “blocking” hides text until they come',
		values: [...PARTY_MODES, 'blocking']
	},
	{ name: 'shareCounts', words: 'Passalong, share counts', values: PARTY_MODES },
	{ name: 'hosting', words: 'Class of the server', values: ['shared', 'virtual', 'dedicated'] },
	{
		name: 'hour',
		words: 'Hour of the day that the server believes it is: evenings are busy',
		values: { from: 0, to: 23 }
	},
	{ name: 'coldStart', words: 'The next page request finds the server asleep', values: ON_OFF },
	{ name: 'cdn', words: 'Files come from the site’s CDN host', values: ON_OFF },
	{ name: 'compression', words: 'Text is compressed', values: ON_OFF },
	{ name: 'httpCaching', words: 'Files may be kept by the browser', values: ON_OFF },
	{
		name: 'sniffing',
		words: 'Tests are served without third parties: they are known by their user agent',
		values: ON_OFF
	},
	{
		name: 'consent',
		words: 'A layer asks before visits are counted, and tells the site of the choice',
		values: ON_OFF
	},
	{
		name: 'orders',
		words: 'Pages tell the order desk that they were seen: a beacon in an inline script',
		values: ON_OFF
	},
	{
		name: 'accounts',
		words: 'Visitors can sign in at /account; their pages come past every page cache',
		values: ON_OFF
	},
	{ name: 'visits', words: 'The visits’ script of Zafra, by way of the site’s own host', values: ON_OFF }
];

export const DEFAULT_STATE: SiteState = {
	builder: 'lathwork',
	https: true,
	larder: 'off',
	secondCache: false,
	hushbox: 'off',
	shrinkery: 'off',
	share: 'none',
	chat: 'absent',
	ads: 'absent',
	counting: 'normal',
	fonts: 'absent',
	shareCounts: 'absent',
	hosting: 'virtual',
	hour: 10,
	coldStart: false,
	cdn: false,
	compression: true,
	httpCaching: true,
	sniffing: false,
	consent: false,
	orders: false,
	accounts: false,
	visits: false
};

export class BadSwitch extends Error {
	constructor(readonly issues: { path: string; message: string }[]) {
		super(issues.map((issue) => `${issue.path}: ${issue.message}`).join(' '));
	}
}

/** Check a change of a state. @throws BadSwitch that names each wrong switch and its allowed values */
export function parseChange(value: unknown): Partial<SiteState> {
	if (typeof value !== 'object' || value === null || Array.isArray(value))
		throw new BadSwitch([{ path: '', message: 'Send a JSON object of switches.' }]);
	const issues: { path: string; message: string }[] = [];
	for (const [name, wanted] of Object.entries(value)) {
		const known = SWITCHES.find((one) => one.name === name);
		if (!known)
			issues.push({
				path: name,
				message: `There is no such switch. Known: ${SWITCHES.map((one) => one.name).join(', ')}.`
			});
		else if (!isAllowed(known, wanted))
			issues.push({
				path: name,
				message:
					'from' in known.values
						? `Must be a whole number from ${known.values.from} to ${known.values.to}.`
						: `Must be one of: ${known.values.join(', ')}.`
			});
	}
	if (issues.length) throw new BadSwitch(issues);
	return value as Partial<SiteState>;
}

function isAllowed({ values }: Switch, wanted: unknown): boolean {
	if ('from' in values)
		return Number.isInteger(wanted) && (wanted as number) >= values.from && (wanted as number) <= values.to;
	return (values as readonly unknown[]).includes(wanted);
}
