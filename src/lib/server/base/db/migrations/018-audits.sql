-- A few loads of every chosen page on every device, in one go: its pages, conditions and loads a page in its design.
CREATE TABLE audit (
	id INTEGER PRIMARY KEY,
	client_id INTEGER REFERENCES client (id) ON DELETE CASCADE,
	-- The audit that this one repeats.
	again_of INTEGER REFERENCES audit (id) ON DELETE SET NULL,
	design TEXT NOT NULL,
	status TEXT NOT NULL CHECK (status IN ('running', 'done', 'stopped')),
	created_at TEXT NOT NULL,
	ended_at TEXT
) STRICT;
CREATE INDEX audit_client ON audit (client_id);
CREATE INDEX audit_again ON audit (again_of);

-- Audits and trials take turns: whose load was the last.
CREATE INDEX job_leased ON job (leased_at DESC, id DESC) WHERE leased_at IS NOT NULL;

-- Where the load of a job belongs: number of the page in the design, round and try.
CREATE TABLE audit_load (
	job_id INTEGER PRIMARY KEY REFERENCES job (id) ON DELETE CASCADE,
	audit_id INTEGER NOT NULL REFERENCES audit (id) ON DELETE CASCADE,
	page INTEGER NOT NULL,
	condition_id TEXT NOT NULL,
	round INTEGER NOT NULL,
	retry INTEGER NOT NULL DEFAULT 0
) STRICT;
CREATE INDEX audit_load_audit ON audit_load (audit_id);

-- What is to be done for a client: a resource under a rule, and what became of it.
CREATE TABLE finding (
	id INTEGER PRIMARY KEY,
	client_id INTEGER NOT NULL REFERENCES client (id) ON DELETE CASCADE,
	rule TEXT NOT NULL,
	resource TEXT NOT NULL,
	-- The audit that looked last, and what it says of it: JSON of its cause.
	audit_id INTEGER REFERENCES audit (id) ON DELETE SET NULL,
	cause TEXT NOT NULL,
	state TEXT NOT NULL DEFAULT 'open'
		CHECK (state IN ('open', 'accepted', 'planned', 'done', 'seen-done', 'not-worth', 'came-back')),
	owner TEXT NOT NULL DEFAULT '',
	note TEXT NOT NULL DEFAULT '',
	-- To the client, on this line.
	question TEXT NOT NULL DEFAULT '',
	first_seen_at TEXT NOT NULL,
	changed_at TEXT NOT NULL,
	UNIQUE (client_id, rule, resource)
) STRICT;
CREATE INDEX finding_audit ON finding (audit_id);

-- What was worked out of an audit goes with it; its loads stay, as loads of their pages.
CREATE TRIGGER audit_deleted AFTER DELETE ON audit BEGIN
	DELETE FROM derived WHERE subject_kind = 'audit' AND subject_id = old.id;
	DELETE FROM job WHERE subject_kind = 'audit' AND subject_id = old.id AND kind = 'derive';
END;
