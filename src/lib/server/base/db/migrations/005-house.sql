-- One queue, one table of what is derived, one of files; frozen conditions by hash; a row for each lab; pages.
-- `sha256(bytes)` and `conditions_hash(json)`, `conditions_body(json)` are functions of the program.

-- Bytes that are kept, each once, whoever uses them.
CREATE TABLE artifact (
	sha256 TEXT PRIMARY KEY,
	media TEXT NOT NULL,
	bytes BLOB NOT NULL
) STRICT;
CREATE TABLE artifact_use (
	-- `load:12`, `trial:3`
	owner TEXT NOT NULL,
	-- `record`, `frame`, `picture`, `step-picture`, `difference/desktop-4`
	role TEXT NOT NULL,
	position INTEGER NOT NULL DEFAULT 0,
	sha256 TEXT NOT NULL REFERENCES artifact (sha256),
	PRIMARY KEY (owner, role, position)
) STRICT, WITHOUT ROWID;
CREATE INDEX artifact_use_by_artifact ON artifact_use (sha256);

INSERT OR IGNORE INTO artifact SELECT sha256(record), 'application/gzip', record FROM load;
INSERT INTO artifact_use SELECT 'load:' || id, 'record', 0, sha256(record) FROM load;
INSERT OR IGNORE INTO artifact SELECT sha256(picture), 'image/webp', picture FROM load WHERE picture IS NOT NULL;
INSERT INTO artifact_use SELECT 'load:' || id, 'picture', 0, sha256(picture) FROM load WHERE picture IS NOT NULL;
INSERT OR IGNORE INTO artifact SELECT sha256(step_picture), 'image/webp', step_picture FROM load WHERE step_picture IS NOT NULL;
INSERT INTO artifact_use SELECT 'load:' || id, 'step-picture', 0, sha256(step_picture) FROM load WHERE step_picture IS NOT NULL;
INSERT OR IGNORE INTO artifact SELECT sha256(image), 'image/webp', image FROM frame;
INSERT INTO artifact_use SELECT 'load:' || load_id, 'frame', position, sha256(image) FROM frame;
INSERT OR IGNORE INTO artifact SELECT sha256(image), 'image/webp', image FROM evidence_picture;
INSERT INTO artifact_use SELECT 'trial:' || trial_id, 'difference/' || name, 0, sha256(image) FROM evidence_picture;
DROP TABLE frame;
DROP TABLE evidence_picture;
ALTER TABLE load DROP COLUMN record;
ALTER TABLE load DROP COLUMN picture;
ALTER TABLE load DROP COLUMN step_picture;

-- Frozen conditions: what changes a measurement, without the name. Results are comparable only under the same hash.
CREATE TABLE conditions_version (
	hash TEXT PRIMARY KEY,
	body TEXT NOT NULL
) STRICT;
-- Under which conditions a trial loads, and what they were called then.
CREATE TABLE trial_conditions (
	trial_id INTEGER NOT NULL REFERENCES trial (id) ON DELETE CASCADE,
	position INTEGER NOT NULL,
	id TEXT NOT NULL,
	name TEXT NOT NULL,
	summary TEXT NOT NULL,
	hash TEXT NOT NULL REFERENCES conditions_version (hash),
	PRIMARY KEY (trial_id, position)
) STRICT, WITHOUT ROWID;
INSERT OR IGNORE INTO conditions_version
	SELECT conditions_hash(value), conditions_body(value) FROM trial, json_each(trial.conditions);
INSERT INTO trial_conditions
	SELECT trial.id, key, value ->> 'id', value ->> 'name', coalesce(value ->> 'summary', ''), conditions_hash(value)
	FROM trial, json_each(trial.conditions);
INSERT OR IGNORE INTO conditions_version SELECT conditions_hash(conditions), conditions_body(conditions) FROM single;
-- Null for loads from files.
ALTER TABLE load ADD COLUMN conditions_hash TEXT REFERENCES conditions_version (hash);
UPDATE load SET conditions_hash = (
	SELECT hash FROM trial_conditions WHERE trial_conditions.trial_id = load.trial_id AND trial_conditions.id = load.condition_id
) WHERE trial_id IS NOT NULL;
UPDATE load SET conditions_hash = known.hash
	FROM (SELECT load_id, conditions_hash(conditions) AS hash FROM single WHERE load_id IS NOT NULL) AS known
	WHERE known.load_id = load.id;
CREATE INDEX load_by_conditions ON load (conditions_hash);

-- A paused trial says so in its status; why it ended is a code.
DROP TRIGGER trial_changes;
DROP TRIGGER load_comes;
DROP TRIGGER load_goes;
DROP TRIGGER load_excluded;
CREATE TABLE trial_3 (
	id INTEGER PRIMARY KEY,
	client_id INTEGER REFERENCES client (id) ON DELETE SET NULL,
	question TEXT NOT NULL,
	kind TEXT NOT NULL CHECK (kind IN ('side-by-side', 'before-after', 'same-page', 'sweep')),
	status TEXT NOT NULL CHECK (status IN ('draft', 'queued', 'running', 'paused', 'waiting', 'done', 'stopped', 'failed')),
	-- Why it ended before its plan; null otherwise.
	reason TEXT CHECK (reason IN ('analyst', 'disk-full', 'no-load-succeeded')),
	rounds INTEGER NOT NULL,
	warmups INTEGER NOT NULL,
	seed INTEGER NOT NULL,
	-- JSON list of metric ids.
	primary_metrics TEXT NOT NULL,
	-- JSON of the rest of the design: looks, settling, steps, intended differences, schedule.
	options TEXT NOT NULL DEFAULT '{}',
	repeat_of INTEGER REFERENCES trial (id) ON DELETE SET NULL,
	-- When a job of it was last leased: trials take turns.
	leased_at TEXT,
	created_at TEXT NOT NULL,
	started_at TEXT,
	ended_at TEXT,
	-- When the analyst last opened the sheet of the ended trial.
	read_at TEXT,
	-- Grows whenever what its answer is made from changes.
	inputs INTEGER NOT NULL DEFAULT 1
) STRICT;
INSERT INTO trial_3
	SELECT id, client_id, question, kind, CASE WHEN paused = 1 THEN 'paused' ELSE status END,
		CASE WHEN message LIKE 'The disk is full%' THEN 'disk-full' WHEN status = 'stopped' THEN 'analyst' END,
		rounds, warmups, seed, primary_metrics, options, repeat_of, leased_at, created_at, started_at, ended_at, read_at, inputs
	FROM trial;
DROP TABLE trial;
ALTER TABLE trial_3 RENAME TO trial;
CREATE INDEX trial_by_status ON trial (status);
CREATE INDEX trial_by_client ON trial (client_id, id);
CREATE INDEX trial_by_repeat ON trial (repeat_of);

-- One queue for all that is done: loads, settling, what is derived.
CREATE TABLE job_3 (
	id INTEGER PRIMARY KEY,
	kind TEXT NOT NULL CHECK (kind IN ('load', 'settle', 'derive', 'render', 'gather')),
	-- Whom it serves: `trial:3`, `arm:7`, `client:1`, `nobody`.
	subject TEXT NOT NULL,
	-- JSON of what is to be done, where the subject does not say it.
	"order" TEXT,
	-- Higher goes first; loads of trials have 0.
	priority INTEGER NOT NULL DEFAULT 0,
	status TEXT NOT NULL DEFAULT 'queued' CHECK (status IN ('queued', 'leased', 'done', 'cancelled')),
	lab_id TEXT,
	leased_at TEXT,
	lease_until TEXT,
	-- UTC ISO; not before this time.
	not_before TEXT,
	attempts INTEGER NOT NULL DEFAULT 0,
	created_at TEXT NOT NULL
) STRICT;
-- Where a job belongs in its trial.
CREATE TABLE trial_place (
	job_id INTEGER PRIMARY KEY REFERENCES job (id) ON DELETE CASCADE,
	trial_id INTEGER NOT NULL REFERENCES trial (id) ON DELETE CASCADE,
	arm_id INTEGER NOT NULL REFERENCES arm (id) ON DELETE CASCADE,
	condition_id TEXT NOT NULL,
	stage INTEGER NOT NULL,
	round INTEGER NOT NULL,
	warmup INTEGER NOT NULL,
	-- 0 for the first load of a place, 1 and 2 when it is loaded again.
	retry INTEGER NOT NULL DEFAULT 0,
	UNIQUE (trial_id, arm_id, condition_id, stage, round, warmup, retry)
) STRICT;
INSERT INTO job_3 (id, kind, subject, status, not_before, attempts, leased_at, created_at)
	SELECT job.id, job.kind, 'trial:' || trial_id, CASE job.status WHEN 'leased' THEN 'queued' ELSE job.status END,
		not_before, attempts, job.leased_at, created_at
	FROM job JOIN trial ON trial.id = trial_id;
INSERT INTO trial_place SELECT id, trial_id, arm_id, condition_id, stage, round, warmup, retry FROM job;
DROP TABLE job;
ALTER TABLE job_3 RENAME TO job;

-- What is derived from the loads of a subject: old when its fingerprint or version is.
CREATE TABLE derived (
	subject TEXT NOT NULL,
	-- `judgement`, `outcome`, `evidence`
	kind TEXT NOT NULL,
	version TEXT NOT NULL,
	fingerprint TEXT NOT NULL,
	body TEXT NOT NULL,
	PRIMARY KEY (subject, kind)
) STRICT;
INSERT INTO derived SELECT 'trial:' || trial_id, 'judgement', version, stamp, result FROM judgement;
INSERT INTO derived SELECT 'trial:' || trial_id, 'evidence', version, stamp, result FROM evidence;
DROP TABLE judgement;
DROP TABLE evidence;

-- Loads outside trials are jobs like all others.
INSERT INTO job (kind, subject, "order", priority, status, attempts, created_at)
	SELECT 'load',
		CASE WHEN arm_id IS NOT NULL THEN 'arm:' || arm_id WHEN client_id IS NOT NULL THEN 'client:' || client_id ELSE 'nobody' END,
		json_object('url', url, 'steps', json(steps), 'loadId', load_id, 'conditions', json_object('id', conditions ->> 'id',
			'name', conditions ->> 'name', 'summary', coalesce(conditions ->> 'summary', ''), 'hash', conditions_hash(conditions))),
		10, CASE status WHEN 'done' THEN 'done' ELSE 'queued' END, attempts, created_at
	FROM single ORDER BY id;
UPDATE load SET job_id = known.job_id
	FROM (SELECT id AS job_id, "order" ->> 'loadId' AS load_id FROM job WHERE subject NOT LIKE 'trial:%') AS known
	WHERE known.load_id = load.id;
UPDATE job SET "order" = json_remove("order", '$.loadId') WHERE "order" IS NOT NULL;
DROP TABLE single;

CREATE INDEX job_by_status ON job (status, priority, id);
CREATE INDEX job_by_subject ON job (subject, status);
CREATE INDEX trial_place_by_trial ON trial_place (trial_id, stage, round);
CREATE UNIQUE INDEX job_derives_once ON job (subject, "order") WHERE kind = 'derive' AND status = 'queued';

-- A row a lab: what it is doing, as the other processes see it. Those of this migration were of ended processes.
CREATE TABLE lab (
	id TEXT PRIMARY KEY,
	host TEXT NOT NULL,
	pid INTEGER NOT NULL,
	beat_at TEXT NOT NULL,
	state TEXT NOT NULL CHECK (state IN ('idle', 'busy')),
	job_id INTEGER,
	browser TEXT,
	problem TEXT,
	-- When the load under way must be over.
	load_until TEXT,
	sandboxed INTEGER
) STRICT;
DROP TABLE lab_state;

-- The language of what a client reads.
ALTER TABLE client ADD COLUMN language TEXT NOT NULL DEFAULT 'en' CHECK (language IN ('en', 'es'));

-- Pages of sites; arms may name one.
CREATE TABLE page (
	id INTEGER PRIMARY KEY,
	site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
	url TEXT NOT NULL,
	type TEXT,
	-- Of the site's visits, 0 to 1.
	traffic_share REAL,
	UNIQUE (site_id, url)
) STRICT;
ALTER TABLE arm ADD COLUMN page_id INTEGER REFERENCES page (id) ON DELETE SET NULL;

-- Inputs of a trial's answer, and what follows when they change.
CREATE TRIGGER load_comes AFTER INSERT ON load WHEN NEW.trial_id IS NOT NULL BEGIN
	UPDATE trial SET inputs = inputs + 1 WHERE id = NEW.trial_id;
END;
CREATE TRIGGER load_goes AFTER DELETE ON load WHEN OLD.trial_id IS NOT NULL BEGIN
	UPDATE trial SET inputs = inputs + 1 WHERE id = OLD.trial_id;
END;
CREATE TRIGGER load_excluded AFTER UPDATE OF excluded ON load WHEN NEW.trial_id IS NOT NULL BEGIN
	UPDATE trial SET inputs = inputs + 1 WHERE id = NEW.trial_id;
END;
CREATE TRIGGER trial_changes AFTER UPDATE OF options, rounds, primary_metrics, status ON trial
	WHEN OLD.options <> NEW.options OR OLD.rounds <> NEW.rounds OR OLD.primary_metrics <> NEW.primary_metrics OR OLD.status <> NEW.status BEGIN
	UPDATE trial SET inputs = inputs + 1 WHERE id = NEW.id;
END;
CREATE TRIGGER trial_answers_anew AFTER UPDATE OF inputs ON trial WHEN NEW.status NOT IN ('draft', 'queued') BEGIN
	INSERT OR IGNORE INTO job (kind, subject, "order", priority, created_at)
		VALUES ('derive', 'trial:' || NEW.id, '"judgement"', 6, strftime('%Y-%m-%dT%H:%M:%fZ', 'now'));
END;
-- The records of a running trial are read once it rests.
CREATE TRIGGER trial_explains_anew AFTER UPDATE OF inputs ON trial WHEN NEW.status IN ('waiting', 'done', 'stopped') BEGIN
	INSERT OR IGNORE INTO job (kind, subject, "order", priority, created_at)
		VALUES ('derive', 'trial:' || NEW.id, '"evidence"', 4, strftime('%Y-%m-%dT%H:%M:%fZ', 'now'));
END;

-- What goes with what is deleted.
CREATE TRIGGER artifact_unused AFTER DELETE ON artifact_use
	WHEN NOT EXISTS (SELECT 1 FROM artifact_use WHERE sha256 = OLD.sha256) BEGIN
	DELETE FROM artifact WHERE sha256 = OLD.sha256;
END;
CREATE TRIGGER load_takes_along AFTER DELETE ON load BEGIN
	DELETE FROM artifact_use WHERE owner = 'load:' || OLD.id;
END;
CREATE TRIGGER arm_takes_along AFTER DELETE ON arm BEGIN
	DELETE FROM job WHERE subject = 'arm:' || OLD.id;
END;
CREATE TRIGGER trial_takes_along AFTER DELETE ON trial BEGIN
	DELETE FROM job WHERE subject = 'trial:' || OLD.id;
	DELETE FROM derived WHERE subject = 'trial:' || OLD.id;
	DELETE FROM artifact_use WHERE owner = 'trial:' || OLD.id;
END;
