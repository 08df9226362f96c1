/** Everything that can be switched on a site, with words for people. */
export const PARTY_MODES = ['absent', 'normal', 'slow', 'refused', 'silent'] as const;
export type PartyMode = (typeof PARTY_MODES)[number];
/** Larder: pages are kept; files are minified too. */
export const LARDER_LEVELS = ['off', 'pages', 'pages-and-files'] as const;
/** Hushbox holds back: scripts of other hosts; all script files; inline scripts too. */
export const HUSHBOX_LEVELS = ['off', 'third-party', 'files', 'inline'] as const;
/** Shrinkery: WebP; cut to the size they are shown at; everything late and without dimensions. */
export const SHRINKERY_LEVELS = ['off', 'format', 'size', 'late'] as const;
export type LarderLevel = (typeof LARDER_LEVELS)[number];
export type HushboxLevel = (typeof HUSHBOX_LEVELS)[number];
export type ShrinkeryLevel = (typeof SHRINKERY_LEVELS)[number];
export const BUILDERS = ['mortise', 'lathwork', 'patchboard', 'plainstem'] as const;
export type BuilderName = (typeof BUILDERS)[number];

export interface SiteState {
	builder: BuilderName;
	https: boolean;
	larder: LarderLevel;
	larderJoins: boolean;
	secondCache: boolean;
	hushbox: HushboxLevel;
	shrinkery: ShrinkeryLevel;
	share: 'none' | 'fold' | 'band';
	chat: PartyMode | 'later';
	ads: PartyMode | 'half-filled';
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
	byIsland: boolean;
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
	{ name: 'larder', words: 'Larder: page cache, then minified files too', values: LARDER_LEVELS },
	{ name: 'larderJoins', words: 'Larder’s option: one script file in all, inline scripts dropped', values: ON_OFF },
	{ name: 'secondCache', words: 'A second page cache beside Larder: they get in each other’s way', values: ON_OFF },
	{ name: 'hushbox', words: 'Hushbox: holds scripts back until the first input', values: HUSHBOX_LEVELS },
	{ name: 'shrinkery', words: 'Shrinkery: lighter images, loaded late', values: SHRINKERY_LEVELS },
	{
		name: 'share',
		words: 'Share buttons: none, the plugin that folds them away or the one with a band at the end',
		values: ['none', 'fold', 'band']
	},
	{
		name: 'chat',
		words: 'Parlour Bell, the chat: “later” starts it by a timer, 6.5 s after the load event',
		values: [...PARTY_MODES, 'later']
	},
	{
		name: 'ads',
		words: 'Hoarding Row, ads: “half-filled” reserves two spaces and fills the first only',
		values: [...PARTY_MODES, 'half-filled']
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
	{ name: 'visits', words: 'The visits’ script of Zafra, by way of the site’s own host', values: ON_OFF },
	{
		name: 'byIsland',
		words: 'The timetable shows the sailings of one island, and swaps them at a press',
		values: ON_OFF
	}
];

export const DEFAULT_STATE: SiteState = {
	builder: 'lathwork',
	https: true,
	larder: 'off',
	larderJoins: false,
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
	visits: false,
	byIsland: false
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
		const lever = SWITCHES.find((lever) => lever.name === name);
		if (!lever)
			issues.push({
				path: name,
				message: `There is no such switch. Known: ${SWITCHES.map((lever) => lever.name).join(', ')}.`
			});
		else if (!isAllowed(lever, wanted))
			issues.push({
				path: name,
				message:
					'from' in lever.values
						? `Must be a whole number from ${lever.values.from} to ${lever.values.to}.`
						: `Must be one of: ${lever.values.join(', ')}.`
			});
	}
	if (issues.length) throw new BadSwitch(issues);
	return value as Partial<SiteState>;
}

/** A change without the switches and values that there are not. */
export function allowedOnly(change: Partial<SiteState>): Partial<SiteState> {
	const entries = Object.entries(change).filter(([name, value]) => {
		const found = SWITCHES.find((own) => own.name === name);
		return found !== undefined && isAllowed(found, value);
	});
	return Object.fromEntries(entries);
}

function isAllowed({ values }: Switch, wanted: unknown): boolean {
	if ('from' in values)
		return Number.isInteger(wanted) && (wanted as number) >= values.from && (wanted as number) <= values.to;
	return (values as readonly unknown[]).includes(wanted);
}
