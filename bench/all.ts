/** Runs every benchmark, one after another, each in a process of its own. `npm run bench -- shaper` runs one. */
import { spawnSync } from 'node:child_process';

const ALL = [
	'verdicts',
	'questions',
	'standings',
	'noise',
	'shaper',
	'fairness',
	'lab',
	'heavy',
	'pages',
	'archivePages',
	'clientPages',
	'reports',
	'watch',
	'watchRules',
	'self',
	'kills',
	'causes',
	'demoWeb',
	'collecting'
];
const wanted = process.argv.slice(2);
let failed = false;
for (const name of wanted.length ? wanted : ALL)
	failed =
		spawnSync(process.execPath, ['--expose-gc', '--import', 'tsx', `bench/${name}.ts`], { stdio: 'inherit' }).status !==
			0 || failed;
process.exit(failed ? 1 : 0);
