-- Trials gain kinds, looks, schedules and setups; loads may stand alone; conditions and evidence have tables of their own.
CREATE TABLE trial_2 (
	id INTEGER PRIMARY KEY,
	client_id INTEGER REFERENCES client (id) ON DELETE SET NULL,
	question TEXT NOT NULL,
	kind TEXT NOT NULL CHECK (kind IN ('side-by-side', 'before-after', 'same-page', 'sweep')),
	status TEXT NOT NULL CHECK (status IN ('draft', 'queued', 'running', 'waiting', 'done', 'stopped', 'failed')),
	-- Why it failed or what it waits for, in words.
	message TEXT,
	-- Paused by the analyst: its jobs stay and are not leased.
	paused INTEGER NOT NULL DEFAULT 0,
	rounds INTEGER NOT NULL,
	warmups INTEGER NOT NULL,
	seed INTEGER NOT NULL,
	-- JSON list of metric ids.
	primary_metrics TEXT NOT NULL,
	-- JSON list of whole conditions, frozen when the trial was made.
	conditions TEXT NOT NULL,
	-- JSON of the rest of the design: looks, settling, steps, intended differences, schedule.
	options TEXT NOT NULL DEFAULT '{}',
	repeat_of INTEGER REFERENCES trial (id) ON DELETE SET NULL,
	-- When a job of it was last leased: trials take turns.
	leased_at TEXT,
	created_at TEXT NOT NULL,
	started_at TEXT,
	ended_at TEXT,
	-- When the analyst last opened the sheet of the ended trial.
	read_at TEXT
) STRICT;
INSERT INTO trial_2 (id, client_id, question, kind, status, message, rounds, warmups, seed, primary_metrics, conditions, created_at, started_at, ended_at, read_at)
	SELECT id, client_id, question, kind, status, message, rounds, warmups, seed, primary_metrics, conditions, created_at, started_at, ended_at, read_at FROM trial;
DROP TABLE trial;
ALTER TABLE trial_2 RENAME TO trial;

-- JSON: components, features and effort of what the arm's page runs on.
ALTER TABLE arm ADD COLUMN setup TEXT;
-- The page of a sweep that the arm is a version of.
ALTER TABLE arm ADD COLUMN page TEXT;

-- `settle` fetches the page until it is stable; `load` loads it.
ALTER TABLE job ADD COLUMN kind TEXT NOT NULL DEFAULT 'load';
-- UTC ISO; not before this time.
ALTER TABLE job ADD COLUMN not_before TEXT;
CREATE INDEX job_by_trial ON job (trial_id, status);

-- What waiting for a stable page saw.
CREATE TABLE settling (
	job_id INTEGER PRIMARY KEY REFERENCES job (id) ON DELETE CASCADE,
	trial_id INTEGER NOT NULL REFERENCES trial (id) ON DELETE CASCADE,
	arm_id INTEGER NOT NULL,
	condition_id TEXT NOT NULL,
	stage INTEGER NOT NULL,
	result TEXT NOT NULL
) STRICT;

-- A dated note of a change.
CREATE TABLE marker (
	id INTEGER PRIMARY KEY,
	trial_id INTEGER REFERENCES trial (id) ON DELETE CASCADE,
	-- The stage that the change leads to.
	stage INTEGER,
	at TEXT NOT NULL,
	words TEXT NOT NULL,
	-- The settings file that was kept with it.
	file_name TEXT,
	file TEXT
) STRICT;

-- Why, fairness, what broke: derived from the records, for one state of the loads.
CREATE TABLE evidence (
	trial_id INTEGER PRIMARY KEY REFERENCES trial (id) ON DELETE CASCADE,
	version TEXT NOT NULL,
	stamp TEXT NOT NULL,
	result TEXT NOT NULL
) STRICT;
CREATE TABLE evidence_picture (
	trial_id INTEGER NOT NULL REFERENCES trial (id) ON DELETE CASCADE,
	name TEXT NOT NULL,
	image BLOB NOT NULL,
	PRIMARY KEY (trial_id, name)
) STRICT, WITHOUT ROWID;

-- Loads outside a trial: one page, once.
CREATE TABLE single (
	id INTEGER PRIMARY KEY,
	client_id INTEGER REFERENCES client (id) ON DELETE SET NULL,
	url TEXT NOT NULL,
	-- JSON of the whole conditions, frozen.
	conditions TEXT NOT NULL,
	-- JSON list of steps.
	steps TEXT NOT NULL DEFAULT '[]',
	-- The trial and arm on whose behalf it is loaded, for a nudged load on demand.
	trial_id INTEGER REFERENCES trial (id) ON DELETE CASCADE,
	arm_id INTEGER REFERENCES arm (id) ON DELETE CASCADE,
	status TEXT NOT NULL DEFAULT 'queued' CHECK (status IN ('queued', 'leased', 'done')),
	lease_owner TEXT,
	attempts INTEGER NOT NULL DEFAULT 0,
	created_at TEXT NOT NULL,
	load_id INTEGER REFERENCES load (id) ON DELETE SET NULL
) STRICT;

ALTER TABLE load ADD COLUMN url TEXT NOT NULL DEFAULT '';
ALTER TABLE load ADD COLUMN source TEXT NOT NULL DEFAULT 'lab';
ALTER TABLE load ADD COLUMN client_id INTEGER REFERENCES client (id) ON DELETE SET NULL;
-- The step that failed and the picture of that moment.
ALTER TABLE load ADD COLUMN failed_step INTEGER;
ALTER TABLE load ADD COLUMN step_picture BLOB;
ALTER TABLE load ADD COLUMN nudged INTEGER NOT NULL DEFAULT 0;

-- Hosts of other domains that serve a site's own files, by comma.
ALTER TABLE site ADD COLUMN cdn_hosts TEXT NOT NULL DEFAULT '';

-- Conditions that the analyst made; those that ship are in the code and can be overridden here.
CREATE TABLE conditions (
	id TEXT PRIMARY KEY,
	position INTEGER NOT NULL,
	body TEXT NOT NULL,
	changed_at TEXT NOT NULL
) STRICT;
