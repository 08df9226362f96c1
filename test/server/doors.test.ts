import { expect } from 'chai';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { routeTargets } from '../support/routeTree';

/** What changes something begins with what it does. */
const CHANGES =
	/^(accept|add|archive|begin|cancel|change|check|choose|create|decide|delete|drop|end|exclude|freeze|insert|intend|mark|move|note|nudge|paste|pause|put|remove|repeat|request|restore|resume|revoke|save|set|start|stop|take|unmark)[A-Z]/;
const IMPORTS = /import (?!type)\{([^}]*)\} from '\$lib\/server\/(?:rooms|desk)\/[^']+'/g;
/** Heavy work is named: `locals.runHeavy('importHar', …)`. */
const HEAVY = /runHeavy\(\s*'(import\w+)'/g;

/** Readers of a form, by the command that each calls. */
const READERS: Record<string, string> = {
	addMarkerFrom: 'addMarker',
	unmarkAction: 'deleteMarker',
	restoreAction: 'restoreBinned'
};

interface Door {
	name: string;
	/** Commands that it calls. */
	commands: string[];
}

/** What a part of a route's source calls of what the file imports. */
function commandsIn(source: string, part: string): string[] {
	const imported = [...source.matchAll(IMPORTS)].flatMap(([, names]) => names!.split(',').map((name) => name.trim()));
	const called = imported.filter((name) => CHANGES.test(name) && new RegExp(`\\b${name}\\b`).test(part));
	const heavy = [...part.matchAll(HEAVY)].map(([, name]) => name!);
	return [...called.map((name) => READERS[name] ?? name), ...heavy].sort();
}

/** Of an action, from its name to the next; of an endpoint's method, to the next export. */
function partOf(source: string, method: string, action: string | null): string {
	if (action === null) return source.split(new RegExp(`export const ${method}\\b`))[1]!.split('\nexport const')[0]!;
	const actions = source.slice(source.indexOf('export const actions'));
	const [, from] = actions.split('\n};')[0]!.split(new RegExp(`^\\t(?:async )?${action}\\b`, 'm'));
	return from!.split(/^\t(?:async )?\w+(?=[:(,])/m)[0]!;
}

const doors: Door[] = routeTargets()
	.filter(({ method, route }) => method !== 'GET' && !route.startsWith('/r/') && !route.startsWith('/visit'))
	.map(({ route, method, action }) => {
		const file = action === null ? '+server.ts' : '+page.server.ts';
		const source = readFileSync(join('src/routes', route, file), 'utf8');
		const name = `${method} ${route}${action === null ? '' : `?/${action}`}`;
		return { name, commands: commandsIn(source, partOf(source, method, action)) };
	});

const ofForms = doors.filter(({ name }) => name.includes('?/'));
const ofApi = doors.filter(({ name }) => name.includes('/api/'));

describe('the doors to what changes something', () => {
	it('are many, and each is found with what it calls', () => {
		expect(ofForms.length).to.be.above(45);
		expect(ofApi.length).to.be.above(70);
		expect(ofForms.find(({ name }) => name === 'POST /pages?/delete')!.commands).to.deep.equal(['deletePages']);
		expect(ofApi.find(({ name }) => name === 'DELETE /api/pages')!.commands).to.deep.equal(['deletePages']);
	});

	it('of forms lead where a door of the API leads: what the interface can do, the API can', () => {
		const knownNames = new Set(ofApi.flatMap(({ commands }) => commands));
		const alone = ofForms.flatMap(({ name, commands }) =>
			commands.filter((command) => !knownNames.has(command)).map((command) => `${name}: ${command}`)
		);
		expect(alone).to.deep.equal([]);
	});

	it('call one command each, which does all that follows', () => {
		/** Two wishes in one form, each a call of its own in the API. */
		const TWO = [
			'POST /trials/[id]?/start',
			'POST /trials/new?/default',
			'POST /workshop/lab?/noise',
			'POST /workshop/agency?/save'
		];
		/** A change and what state it shall be in, as one body. */
		const EITHER = [
			'PATCH /api/watches/[id]',
			'PATCH /api/standings/[id]',
			'POST /api/trials/[id]/repeat',
			'POST /workshop/conditions/[id]?/save'
		];
		const many = doors.filter(({ name, commands }) => commands.length > 1 && ![...TWO, ...EITHER].includes(name));
		expect(many.map(({ name, commands }) => `${name}: ${commands.join(', ')}`)).to.deep.equal([]);
	});
});
