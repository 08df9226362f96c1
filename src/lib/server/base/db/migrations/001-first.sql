CREATE TABLE client (
	id INTEGER PRIMARY KEY,
	name TEXT NOT NULL UNIQUE,
	note TEXT NOT NULL DEFAULT ''
) STRICT;

CREATE TABLE site (
	id INTEGER PRIMARY KEY,
	client_id INTEGER NOT NULL REFERENCES client (id) ON DELETE CASCADE,
	host TEXT NOT NULL,
	name TEXT NOT NULL,
	role TEXT NOT NULL CHECK (role IN ('own', 'competitor', 'bench')),
	UNIQUE (client_id, host)
) STRICT;

CREATE TABLE trial (
	id INTEGER PRIMARY KEY,
	client_id INTEGER REFERENCES client (id) ON DELETE SET NULL,
	question TEXT NOT NULL,
	kind TEXT NOT NULL CHECK (kind IN ('side-by-side', 'before-after')),
	status TEXT NOT NULL CHECK (status IN ('draft', 'queued', 'running', 'waiting', 'done', 'stopped', 'failed')),
	-- Why it failed or what it waits for, in words.
	message TEXT,
	rounds INTEGER NOT NULL,
	warmups INTEGER NOT NULL,
	seed INTEGER NOT NULL,
	-- JSON list of metric ids.
	primary_metrics TEXT NOT NULL,
	-- JSON list of whole conditions, frozen when the trial was made.
	conditions TEXT NOT NULL,
	created_at TEXT NOT NULL,
	started_at TEXT,
	ended_at TEXT,
	-- When the analyst last opened the sheet of the ended trial.
	read_at TEXT
) STRICT;

CREATE TABLE arm (
	id INTEGER PRIMARY KEY,
	trial_id INTEGER NOT NULL REFERENCES trial (id) ON DELETE CASCADE,
	position INTEGER NOT NULL,
	name TEXT NOT NULL,
	url TEXT NOT NULL,
	is_baseline INTEGER NOT NULL DEFAULT 0,
	is_reference INTEGER NOT NULL DEFAULT 0,
	UNIQUE (trial_id, position)
) STRICT;

CREATE TABLE job (
	id INTEGER PRIMARY KEY,
	trial_id INTEGER NOT NULL REFERENCES trial (id) ON DELETE CASCADE,
	arm_id INTEGER NOT NULL REFERENCES arm (id) ON DELETE CASCADE,
	condition_id TEXT NOT NULL,
	stage INTEGER NOT NULL,
	round INTEGER NOT NULL,
	warmup INTEGER NOT NULL,
	status TEXT NOT NULL DEFAULT 'queued' CHECK (status IN ('queued', 'leased', 'done', 'cancelled')),
	lease_owner TEXT,
	leased_at TEXT,
	attempts INTEGER NOT NULL DEFAULT 0,
	UNIQUE (trial_id, arm_id, condition_id, stage, round, warmup)
) STRICT;

CREATE INDEX job_by_status ON job (status, id);

CREATE TABLE load (
	id INTEGER PRIMARY KEY,
	-- One load per job: no load is counted twice, however often the runner is killed.
	job_id INTEGER UNIQUE REFERENCES job (id) ON DELETE SET NULL,
	trial_id INTEGER REFERENCES trial (id) ON DELETE CASCADE,
	arm_id INTEGER REFERENCES arm (id) ON DELETE CASCADE,
	condition_id TEXT NOT NULL,
	stage INTEGER NOT NULL,
	round INTEGER NOT NULL,
	warmup INTEGER NOT NULL,
	status TEXT NOT NULL CHECK (status IN ('ok', 'failed')),
	capped INTEGER NOT NULL,
	reason_code TEXT,
	reason TEXT,
	-- The analyst's reason for leaving it out.
	excluded TEXT,
	started_at TEXT NOT NULL,
	lab_ms REAL NOT NULL,
	machine_speed REAL,
	recipe TEXT NOT NULL,
	score REAL, lcp REAL, cls REAL, tbt REAL, wire REAL, inp REAL, ttfb REAL, fcp REAL, "start" REAL, si REAL, vc REAL,
	dcl REAL, onload REAL, "full" REAL, decoded REAL, requests REAL, elements REAL, depth REAL, unusedJs REAL, unusedCss REAL,
	-- The LoadRecord as compressed JSON.
	record BLOB NOT NULL,
	-- WebP of the finished page.
	picture BLOB
) STRICT;

CREATE INDEX load_by_trial ON load (trial_id, id);

CREATE TABLE frame (
	load_id INTEGER NOT NULL REFERENCES load (id) ON DELETE CASCADE,
	position INTEGER NOT NULL,
	at_ms REAL NOT NULL,
	image BLOB NOT NULL,
	PRIMARY KEY (load_id, position)
) STRICT, WITHOUT ROWID;

-- Judgements are derived: a row is only as good as its version and its stamp of the loads behind it.
CREATE TABLE judgement (
	trial_id INTEGER PRIMARY KEY REFERENCES trial (id) ON DELETE CASCADE,
	version TEXT NOT NULL,
	stamp TEXT NOT NULL,
	result TEXT NOT NULL
) STRICT;

-- What the lab process is doing; one row.
CREATE TABLE lab_state (
	id INTEGER PRIMARY KEY CHECK (id = 1),
	owner TEXT NOT NULL,
	pid INTEGER NOT NULL,
	beat_at TEXT NOT NULL,
	state TEXT NOT NULL CHECK (state IN ('idle', 'busy')),
	job_id INTEGER,
	browser TEXT,
	problem TEXT
) STRICT;

-- Facts about the database itself, such as which demonstration data it holds.
CREATE TABLE fact (name TEXT PRIMARY KEY, value TEXT NOT NULL) STRICT;
