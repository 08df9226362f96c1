/** What a client's archive holds: which rows of which tables, and how they refer to each other. */

type Value = string | number | null;
export type ArchiveRow = Record<string, Value>;

export interface ArchiveTable {
	name: string;
	/** Rows that belong to client @id. */
	where: string;
	/** Columns that point at rows of other tables of the archive. */
	refers?: Record<string, string>;
	/** Its rows have numbers of their own, that are given anew. */
	isNumbered?: boolean;
	/** Two columns that name a row, as `subject_kind` and `subject_id`: how they begin. */
	names?: 'subject' | 'owner';
	/** Shared with other clients: a row that is there already is used. */
	isShared?: readonly string[];
}

const TRIALS = 'trial_id IN (SELECT id FROM trial WHERE client_id = @id)';
const SITES = 'site_id IN (SELECT id FROM site WHERE client_id = @id)';
const WATCHES = 'watch_id IN (SELECT id FROM watch WHERE client_id = @id)';
const READINGS = `reading_id IN (SELECT id FROM reading WHERE ${WATCHES} AND state = 'done')`;
const AUDITS = `audit_id IN (SELECT id FROM audit WHERE client_id = @id AND status <> 'running')`;
const LOADS = `(load.client_id = @id OR load.trial_id IN (SELECT id FROM trial WHERE client_id = @id))`;
const OF_LOADS = `load_id IN (SELECT id FROM load WHERE ${LOADS})`;
/** Jobs that are over name what a load was asked for; others are not taken along. */
const JOBS = `status IN ('done', 'cancelled') AND
	(id IN (SELECT job_id FROM load WHERE ${LOADS}) OR id IN (SELECT job_id FROM trial_place WHERE ${TRIALS}))`;
const OF_JOBS = `job_id IN (SELECT id FROM job WHERE ${JOBS})`;

/** In an order in which each table comes after those that it refers to. */
export const ARCHIVE_TABLES: readonly ArchiveTable[] = [
	{ name: 'client', where: 'id = @id', isNumbered: true },
	{ name: 'site', where: 'client_id = @id', isNumbered: true, refers: { client_id: 'client' } },
	{ name: 'visit_source', where: SITES, refers: { site_id: 'site' } },
	{ name: 'visitor_state', where: SITES, isNumbered: true, refers: { site_id: 'site' } },
	{ name: 'page', where: SITES, isNumbered: true, refers: { site_id: 'site' } },
	{
		name: 'page_skeleton',
		where: `page_id IN (SELECT id FROM page WHERE ${SITES})`,
		refers: { page_id: 'page' }
	},
	{
		name: 'worksheet_line',
		where: `page_id IN (SELECT id FROM page WHERE ${SITES})`,
		refers: { page_id: 'page' }
	},
	{ name: 'field_reading', where: SITES, isNumbered: true, refers: { site_id: 'site', page_id: 'page' } },
	{
		name: 'component',
		where: `id IN (SELECT component_id FROM site_component WHERE ${SITES})`,
		isNumbered: true,
		isShared: ['kind', 'name']
	},
	{ name: 'site_component', where: SITES, refers: { site_id: 'site', component_id: 'component' } },
	{ name: 'third_party', where: 'client_id = @id', refers: { client_id: 'client' } },
	{
		name: 'conditions_version',
		where: `hash IN (SELECT hash FROM trial_conditions WHERE ${TRIALS})
			OR hash IN (SELECT conditions_hash FROM load WHERE ${LOADS})
			OR hash IN (SELECT hash FROM watch_conditions WHERE ${WATCHES})`,
		isShared: ['hash']
	},
	{
		name: 'trial',
		where: 'client_id = @id',
		isNumbered: true,
		refers: { client_id: 'client', repeat_of: 'trial' }
	},
	{ name: 'arm', where: TRIALS, isNumbered: true, refers: { trial_id: 'trial', page_id: 'page', undoes: 'arm' } },
	{ name: 'trial_conditions', where: TRIALS, refers: { trial_id: 'trial' } },
	{
		name: 'marker',
		where: `(${TRIALS} OR ${SITES})`,
		isNumbered: true,
		refers: { trial_id: 'trial', site_id: 'site' }
	},
	{ name: 'rejudged', where: TRIALS, refers: { trial_id: 'trial' } },
	{ name: 'watch', where: 'client_id = @id', isNumbered: true, refers: { client_id: 'client' } },
	{ name: 'watch_conditions', where: WATCHES, refers: { watch_id: 'watch' } },
	{
		name: 'watched_page',
		where: WATCHES,
		isNumbered: true,
		refers: { watch_id: 'watch', page_id: 'page' }
	},
	{ name: 'reading', where: `(${WATCHES}) AND state = 'done'`, isNumbered: true, refers: { watch_id: 'watch' } },
	{
		name: 'audit',
		where: `client_id = @id AND status <> 'running'`,
		isNumbered: true,
		refers: { client_id: 'client', again_of: 'audit' }
	},
	{ name: 'audit_body', where: AUDITS, refers: { audit_id: 'audit' } },
	{ name: 'finding', where: 'client_id = @id', isNumbered: true, refers: { client_id: 'client', audit_id: 'audit' } },
	{ name: 'job', where: `(${JOBS})`, isNumbered: true, names: 'subject' },
	{
		name: 'trial_place',
		where: `${TRIALS} AND ${OF_JOBS}`,
		refers: { job_id: 'job', trial_id: 'trial', arm_id: 'arm' }
	},
	{ name: 'settling', where: `${TRIALS} AND ${OF_JOBS}`, refers: { job_id: 'job', trial_id: 'trial', arm_id: 'arm' } },
	{
		name: 'load',
		where: LOADS,
		isNumbered: true,
		refers: { job_id: 'job', trial_id: 'trial', arm_id: 'arm', client_id: 'client' }
	},
	{
		name: 'reading_place',
		where: `job_id IN (SELECT job_id FROM load WHERE ${LOADS}) AND ${READINGS}`,
		refers: { job_id: 'job', reading_id: 'reading', watched_page_id: 'watched_page' }
	},
	{ name: 'audit_load', where: `${AUDITS} AND ${OF_JOBS}`, refers: { job_id: 'job', audit_id: 'audit' } },
	{
		name: 'reading_figure',
		where: READINGS,
		refers: { reading_id: 'reading', watched_page_id: 'watched_page', load_id: 'load' }
	},
	{ name: 'host_seen', where: OF_LOADS, refers: { load_id: 'load' } },
	{
		name: 'derived',
		where: `(subject_kind = 'trial' AND subject_id IN (SELECT id FROM trial WHERE client_id = @id))
			OR (subject_kind = 'site' AND subject_id IN (SELECT id FROM site WHERE client_id = @id))`,
		names: 'subject'
	},
	{
		name: 'artifact_use',
		// What came with a load never leaves the data folder.
		where: `(owner_kind = 'load' AND role NOT IN ('bodies', 'body') AND owner_id IN (SELECT id FROM load WHERE ${LOADS}))
			OR (owner_kind = 'trial' AND owner_id IN (SELECT id FROM trial WHERE client_id = @id))`,
		names: 'owner'
	}
];

/** Names of the tables that an archive holds, or leaves out because they are computed. */
export const ARCHIVED: readonly string[] = ARCHIVE_TABLES.map(({ name }) => name);
