-- Reports: what clients read. A draft goes on; a frozen version never changes.
CREATE TABLE report (
	id INTEGER PRIMARY KEY,
	client_id INTEGER REFERENCES client (id) ON DELETE SET NULL,
	title TEXT NOT NULL,
	-- JSON: blocks, words, disclosure.
	draft TEXT NOT NULL,
	-- Counts changes: a draft is saved over the one that was read, not over another's.
	revision INTEGER NOT NULL DEFAULT 1,
	created_at TEXT NOT NULL,
	changed_at TEXT NOT NULL
) STRICT;
CREATE INDEX report_by_client ON report (client_id, id);

-- AUTOINCREMENT: a number may not come again, artifacts and links are known by it.
CREATE TABLE report_version (
	id INTEGER PRIMARY KEY AUTOINCREMENT,
	report_id INTEGER NOT NULL REFERENCES report (id) ON DELETE CASCADE,
	number INTEGER NOT NULL,
	title TEXT NOT NULL,
	frozen_at TEXT NOT NULL,
	-- JSON, gzipped: all that is shown, and the loads and rules that its figures follow from.
	body BLOB NOT NULL,
	UNIQUE (report_id, number)
) STRICT;

-- Links for clients. The token itself is never stored.
CREATE TABLE report_share (
	id INTEGER PRIMARY KEY,
	version_id INTEGER NOT NULL REFERENCES report_version (id) ON DELETE CASCADE,
	token_hash TEXT NOT NULL UNIQUE,
	-- Salt and hash of a pass phrase; null without one.
	phrase TEXT,
	created_at TEXT NOT NULL,
	-- UTC ISO; null for ever.
	expires_at TEXT,
	revoked_at TEXT,
	-- How often it was opened, and when last; nothing about who did.
	views INTEGER NOT NULL DEFAULT 0,
	viewed_at TEXT
) STRICT;
CREATE INDEX report_share_of_version ON report_share (version_id);

CREATE TRIGGER report_version_takes_along AFTER DELETE ON report_version BEGIN
	DELETE FROM artifact_use WHERE owner = 'report:' || OLD.id;
	DELETE FROM job WHERE subject = 'report:' || OLD.id;
END;

-- The agency itself: name, contact, colour, standing text (JSON). Its logo is an artifact of `agency:1`.
CREATE TABLE agency (
	id INTEGER PRIMARY KEY CHECK (id = 1),
	body TEXT NOT NULL
) STRICT;

-- How each line of the worksheet stood, change by change.
CREATE TABLE worksheet_line (
	page_id INTEGER NOT NULL REFERENCES page (id) ON DELETE CASCADE,
	device TEXT NOT NULL CHECK (device IN ('phone', 'desktop')),
	changed_at TEXT NOT NULL,
	state TEXT NOT NULL CHECK (state IN ('todo', 'good', 'not-applicable', 'waiting', 'done')),
	note TEXT NOT NULL,
	owner TEXT NOT NULL,
	PRIMARY KEY (page_id, device, changed_at)
) STRICT, WITHOUT ROWID;
