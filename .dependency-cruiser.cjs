/** The floors of the house: an import runs down a floor or stays in its room (docs/architecture.md). */
const SERVER = '^src/lib/server/';

/** In this order: a later room may import an earlier one. */
const ROOMS = [
	'clients',
	'conditions',
	'labs',
	'setups',
	'pages',
	'loads',
	'visits',
	'trials',
	'field',
	'watch',
	'standings',
	'audits',
	'reports',
	'archive'
];

/** From the top. */
const FLOORS = [
	{ name: 'routes', path: '^src/(routes/|hooks)' },
	{ name: 'boot', path: `${SERVER}(boot\\.ts|demo/)` },
	{ name: 'desk', path: `${SERVER}desk/` },
	{ name: 'runner', path: `${SERVER}runner/` },
	{ name: 'rooms', path: `${SERVER}rooms/` },
	{ name: 'base', path: `${SERVER}(base|http)/` },
	{ name: 'lab', path: '^src/lab/' },
	{ name: 'core', path: '^src/core/' }
];

const mayNot = (name, comment, from, to) => ({ name, comment, severity: 'error', from, to });

const floors = FLOORS.slice(1).map(({ name, path }, i) =>
	mayNot(
		`${name}-imports-upward`,
		'An import runs down a floor.',
		{ path },
		{
			path: FLOORS.slice(0, i + 1)
				.map((above) => above.path)
				.join('|')
		}
	)
);

const rooms = ROOMS.slice(0, -1).map((room, i) =>
	mayNot(
		`${room}-imports-a-later-room`,
		`Rooms come in this order: ${ROOMS.join(', ')}.`,
		{ path: `${SERVER}rooms/${room}/` },
		{ path: `${SERVER}rooms/(${ROOMS.slice(i + 1).join('|')})/` }
	)
);

module.exports = {
	forbidden: [
		...floors,
		...rooms,
		mayNot(
			'base-imports-http',
			'The doors stand beside the base and use it.',
			{ path: `${SERVER}base/` },
			{ path: `${SERVER}http/` }
		),
		mayNot(
			'queries-of-another-room',
			'Ask another room through what it offers, not through its queries.',
			{ path: `${SERVER}rooms/([^/]+)/` },
			{ path: `${SERVER}rooms/[^/]+/queries`, pathNot: `${SERVER}rooms/$1/` }
		),
		mayNot(
			'queries-from-outside',
			'A room is asked through what it offers, not through its queries.',
			{ path: '^src/', pathNot: `${SERVER}rooms/` },
			{ path: `${SERVER}rooms/[^/]+/queries` }
		),
		mayNot('no-circle', 'Two files that import each other are one.', {}, { circular: true }),
		mayNot(
			'core-is-pure',
			'The core knows no DOM, database, browser or interface.',
			{ path: '^src/core/' },
			{ path: '(^|node_modules/)(playwright-core|better-sqlite3|sharp|svelte|@sveltejs|carbon-[^/]+)(/|$)|^\\$app/' }
		),
		mayNot(
			'lab-knows-no-database',
			'The lab knows the core only.',
			{ path: '^src/lab/' },
			{ path: '(^|node_modules/)better-sqlite3(/|$)|^src/(lib|routes)/|^\\$app/' }
		),
		mayNot('core-imports-node', 'The core knows no Node.', { path: '^src/core/' }, { dependencyTypes: ['core'] }),
		mayNot(
			'charts-know-the-core-only',
			'Charts take props and draw.',
			{ path: '^src/lib/charts/' },
			{ path: '^src/(lib/(server|parts|report)|lab|routes)/|^\\$app/' }
		),
		mayNot('demo-web-is-apart', 'The simulated web is another program.', { path: '^demo-web/' }, { path: '^src/' }),
		mayNot('src-knows-no-demo-web', 'The simulated web is another program.', { path: '^src/' }, { path: '^demo-web/' })
	],
	options: {
		tsPreCompilationDeps: true,
		tsConfig: { fileName: 'tsconfig.json' },
		doNotFollow: { path: 'node_modules' },
		enhancedResolveOptions: { extensions: ['.ts', '.mts', '.js', '.mjs', '.svelte', '.json'] }
	}
};
