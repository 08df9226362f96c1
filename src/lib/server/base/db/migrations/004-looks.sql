-- Failed loads are loaded again in their round: a place may have several jobs. Answers that changed with the rules say so.
CREATE TABLE job_2 (
	id INTEGER PRIMARY KEY,
	trial_id INTEGER NOT NULL REFERENCES trial (id) ON DELETE CASCADE,
	arm_id INTEGER NOT NULL REFERENCES arm (id) ON DELETE CASCADE,
	condition_id TEXT NOT NULL,
	stage INTEGER NOT NULL,
	round INTEGER NOT NULL,
	warmup INTEGER NOT NULL,
	-- 0 for the first load of a place, 1 and 2 when it is loaded again.
	retry INTEGER NOT NULL DEFAULT 0,
	status TEXT NOT NULL DEFAULT 'queued' CHECK (status IN ('queued', 'leased', 'done', 'cancelled')),
	lease_owner TEXT,
	leased_at TEXT,
	lease_until TEXT,
	attempts INTEGER NOT NULL DEFAULT 0,
	kind TEXT NOT NULL DEFAULT 'load',
	-- UTC ISO; not before this time.
	not_before TEXT,
	UNIQUE (trial_id, arm_id, condition_id, stage, round, warmup, retry)
) STRICT;
INSERT INTO job_2 (id, trial_id, arm_id, condition_id, stage, round, warmup, status, lease_owner, leased_at, lease_until, attempts, kind, not_before)
	SELECT id, trial_id, arm_id, condition_id, stage, round, warmup, status, lease_owner, leased_at, lease_until, attempts, kind, not_before FROM job;
DROP TABLE job;
ALTER TABLE job_2 RENAME TO job;
CREATE INDEX job_by_status ON job (status, id);
CREATE INDEX job_by_trial ON job (trial_id, status);

-- A trial that was judged under earlier rules: what its answer was then.
CREATE TABLE rejudged (
	trial_id INTEGER PRIMARY KEY REFERENCES trial (id) ON DELETE CASCADE,
	at TEXT NOT NULL,
	from_version TEXT NOT NULL,
	from_recipe TEXT NOT NULL,
	-- JSON list of what changed: condition, arm, metric, before, after; empty when every verdict stayed.
	changes TEXT NOT NULL
) STRICT;
