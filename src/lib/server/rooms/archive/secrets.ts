/**
 * An archive leaves this machine: values of headers and cookies, passwords, accesses and addresses of hooks stay here.
 * Where one stood the archive says so, and conditions without their secrets have a name of their own.
 */
import { NOT_SHOWN, type Conditions, type NameValue } from '$core/load/conditions/conditions';
import { conditionsFingerprint } from '$core/load/conditions/sameConditions';
import type { Step } from '$core/load/journey/steps';
import type { VisitorState } from '$core/load/journey/visitorState';
import type { LeftSecret } from '$core/wording/leftSecrets';
import { sha256 } from '../../base/db/functions';
import type { ArchiveRow } from './tables';

export type Tables = Record<string, ArchiveRow[]>;

export const SECRET_KINDS = [
	'header',
	'cookie',
	'password',
	'typed',
	'preview',
	'hook'
] as const satisfies LeftSecret['kind'][];

/** Notes what it takes away. */
class Blotter {
	readonly left = new Map<string, LeftSecret>();

	note(kind: LeftSecret['kind'], name: string): void {
		this.left.set(`${kind} ${name}`, { kind, name });
	}

	pairs<Pair extends NameValue>(kind: 'header' | 'cookie', values: readonly Pair[] = []): Pair[] {
		return values.map((pair) => {
			this.note(kind, pair.name);
			return { ...pair, value: NOT_SHOWN };
		});
	}

	conditions(conditions: Conditions): Conditions {
		const { headers, cookies, authentication } = conditions;
		if (authentication) this.note('password', authentication.username);
		return {
			...conditions,
			...(headers ? { headers: this.pairs('header', headers) } : {}),
			...(cookies ? { cookies: this.pairs('cookie', cookies) } : {}),
			...(authentication ? { authentication: { ...authentication, password: NOT_SHOWN } } : {})
		};
	}

	/** Cookies, and what the visitor types to sign in. */
	state(state: VisitorState): VisitorState {
		const steps = state.steps.map((step: Step) => {
			if (!('type' in step)) return step;
			this.note('typed', state.name);
			return { ...step, type: NOT_SHOWN };
		});
		return { ...state, steps, cookies: this.pairs('cookie', state.cookies) };
	}
}

/** The tables of an archive without any secret, and what was left out. The tables given stay as they are. */
export function withoutSecrets(tables: Tables): { tables: Tables; left: LeftSecret[] } {
	const blotter = new Blotter();
	const { versions, hashes } = blottedVersions(tables.conditions_version ?? [], blotter);
	const renamed = (hash: unknown) => hashes.get(String(hash)) ?? hash;
	const change: Record<string, (row: ArchiveRow) => ArchiveRow> = {
		site: (row) => withoutPreview(row, blotter),
		visitor_state: (row) => ({ ...row, body: stateText(row.body, blotter) }),
		arm: (row) => ({ ...row, before: stateText(row.before, blotter) }),
		trial_conditions: (row) => ({ ...row, hash: renamed(row.hash) as string }),
		watch_conditions: (row) => ({ ...row, hash: renamed(row.hash) as string }),
		load: (row) => ({ ...row, conditions_hash: renamed(row.conditions_hash) as string | null }),
		job: (row) => ({ ...row, order: orderText(row.order, renamed, blotter) }),
		reading_figure: (row) => ({ ...row, setting: settingText(row.setting, renamed) }),
		watch: (row) => withoutHook(row, blotter)
	};
	const changed = Object.entries(tables).map(([name, rows]) => [name, change[name] ? rows.map(change[name]) : rows]);
	return {
		tables: { ...Object.fromEntries(changed), conditions_version: versions },
		left: [...blotter.left.values()]
	};
}

/** Frozen conditions are named by what they hold: without their secrets they are others. */
function blottedVersions(rows: readonly ArchiveRow[], blotter: Blotter) {
	const versions = new Map<string, ArchiveRow>();
	const hashes = new Map<string, string>();
	for (const row of rows) {
		const body = conditionsFingerprint(blotter.conditions(JSON.parse(String(row.body)) as Conditions));
		const hash = sha256(body);
		hashes.set(String(row.hash), hash);
		versions.set(hash, { ...row, hash, body });
	}
	return { versions: [...versions.values()], hashes };
}

function withoutPreview(row: ArchiveRow, blotter: Blotter): ArchiveRow {
	if (!row.preview_access) return row;
	blotter.note('preview', String(row.name));
	return { ...row, preview_access: '' };
}

function withoutHook(row: ArchiveRow, blotter: Blotter): ArchiveRow {
	const settings = JSON.parse(String(row.settings)) as { notices?: { hook?: string | null } };
	if (!settings.notices?.hook) return row;
	blotter.note('hook', String(row.name));
	return { ...row, settings: JSON.stringify({ ...settings, notices: { ...settings.notices, hook: null } }) };
}

function stateText(text: string | number | null | undefined, blotter: Blotter): string | null {
	return text == null ? null : JSON.stringify(blotter.state(JSON.parse(String(text)) as VisitorState));
}

interface StoredOrder {
	before?: VisitorState | null;
	conditions?: { hash: unknown };
}

function orderText(text: ArchiveRow[string] | undefined, renamed: (hash: unknown) => unknown, blotter: Blotter) {
	if (text == null) return null;
	const order = JSON.parse(String(text)) as StoredOrder;
	return JSON.stringify({
		...order,
		...(order.before ? { before: blotter.state(order.before) } : {}),
		...(order.conditions ? { conditions: { ...order.conditions, hash: renamed(order.conditions.hash) } } : {})
	});
}

function settingText(text: ArchiveRow[string] | undefined, renamed: (hash: unknown) => unknown): string | null {
	if (text == null) return null;
	const setting = JSON.parse(String(text)) as { conditions: string };
	return JSON.stringify({ ...setting, conditions: renamed(setting.conditions) });
}
