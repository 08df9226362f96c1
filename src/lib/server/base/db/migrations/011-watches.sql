-- Pages over time, and against competitors: what is loaded on a schedule, in blocks, and what each block showed.
CREATE TABLE watch (
	id INTEGER PRIMARY KEY,
	client_id INTEGER NOT NULL REFERENCES client (id) ON DELETE CASCADE,
	-- A watch follows pages; a standing ranks own pages and competitors'.
	kind TEXT NOT NULL CHECK (kind IN ('watch', 'standing')),
	name TEXT NOT NULL,
	-- JSON: conditions, schedule, loads of a reading, metrics, notices.
	settings TEXT NOT NULL,
	state TEXT NOT NULL DEFAULT 'active' CHECK (state IN ('active', 'paused')),
	-- UTC ISO; null on demand.
	next_at TEXT,
	created_at TEXT NOT NULL
) STRICT;
CREATE INDEX watch_by_client ON watch (client_id, kind);
CREATE INDEX watch_due ON watch (state, next_at);

CREATE TABLE watched_page (
	id INTEGER PRIMARY KEY,
	watch_id INTEGER NOT NULL REFERENCES watch (id) ON DELETE CASCADE,
	page_id INTEGER REFERENCES page (id) ON DELETE SET NULL,
	-- Empty for the control page that ships with Zafra.
	url TEXT NOT NULL,
	name TEXT NOT NULL,
	role TEXT NOT NULL CHECK (role IN ('page', 'competitor', 'control')),
	position INTEGER NOT NULL,
	-- UTC ISO: from when on it is not loaded any more; its history stays.
	ended_at TEXT
) STRICT;
CREATE INDEX watched_page_of_watch ON watched_page (watch_id, position);
CREATE INDEX watched_page_by_page ON watched_page (page_id);

-- One block of loads. AUTOINCREMENT: jobs and loads are known by its number.
CREATE TABLE reading (
	id INTEGER PRIMARY KEY AUTOINCREMENT,
	watch_id INTEGER NOT NULL REFERENCES watch (id) ON DELETE CASCADE,
	why TEXT NOT NULL CHECK (why IN ('schedule', 'demand', 'recorded')),
	state TEXT NOT NULL CHECK (state IN ('open', 'done')),
	-- When it was due; its loads may have had to wait.
	planned_at TEXT NOT NULL,
	ended_at TEXT,
	-- Scheduled readings before it that never came: the lab was off.
	missed INTEGER NOT NULL DEFAULT 0,
	-- Pages and conditions that were loaded more often, since few loads could not tell (JSON list).
	extended TEXT
) STRICT;
CREATE INDEX reading_of_watch ON reading (watch_id, id);

CREATE TABLE reading_place (
	job_id INTEGER PRIMARY KEY REFERENCES job (id) ON DELETE CASCADE,
	reading_id INTEGER NOT NULL REFERENCES reading (id) ON DELETE CASCADE,
	watched_page_id INTEGER NOT NULL REFERENCES watched_page (id) ON DELETE CASCADE,
	condition_id TEXT NOT NULL,
	round INTEGER NOT NULL,
	-- The control page is loaded twice a round.
	turn INTEGER NOT NULL DEFAULT 0,
	retry INTEGER NOT NULL DEFAULT 0,
	UNIQUE (reading_id, watched_page_id, condition_id, round, turn, retry)
) STRICT;

-- What a block showed of one page under one set of conditions; kept for ever.
CREATE TABLE reading_figure (
	reading_id INTEGER NOT NULL REFERENCES reading (id) ON DELETE CASCADE,
	watched_page_id INTEGER NOT NULL REFERENCES watched_page (id) ON DELETE CASCADE,
	condition_id TEXT NOT NULL,
	-- JSON: browser, conditions hash, recipe, lab; null where nothing could be loaded.
	setting TEXT,
	-- JSON: figures of the loads that count, by metric, in the order of the rounds.
	figures TEXT NOT NULL,
	-- JSON: rounds of those loads.
	rounds TEXT NOT NULL,
	-- JSON: how many loads failed, by reason; where the page led; what kind it was.
	trouble TEXT,
	disturbed INTEGER NOT NULL DEFAULT 0,
	-- The load that stands for the block, with its pictures; null where none is kept.
	load_id INTEGER REFERENCES load (id) ON DELETE SET NULL,
	PRIMARY KEY (reading_id, watched_page_id, condition_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX reading_figure_of_page ON reading_figure (watched_page_id, condition_id, reading_id);

-- What somebody is told: on the Desk, by mail, by webhook.
CREATE TABLE watch_notice (
	id INTEGER PRIMARY KEY,
	watch_id INTEGER NOT NULL REFERENCES watch (id) ON DELETE CASCADE,
	-- What it is about: told once.
	key TEXT NOT NULL,
	at TEXT NOT NULL,
	-- JSON.
	body TEXT NOT NULL,
	read_at TEXT,
	UNIQUE (watch_id, key)
) STRICT;
CREATE TABLE notice_delivery (
	notice_id INTEGER NOT NULL REFERENCES watch_notice (id) ON DELETE CASCADE,
	-- `mail:address` or `hook:address`
	target TEXT NOT NULL,
	state TEXT NOT NULL CHECK (state IN ('waiting', 'sent', 'given-up')),
	tries INTEGER NOT NULL DEFAULT 0,
	next_at TEXT NOT NULL,
	-- Why the last try failed.
	problem TEXT,
	PRIMARY KEY (notice_id, target)
) STRICT, WITHOUT ROWID;
CREATE INDEX notice_delivery_due ON notice_delivery (state, next_at);

CREATE TRIGGER reading_takes_along AFTER DELETE ON reading BEGIN
	DELETE FROM job WHERE subject = 'reading:' || OLD.id AND status = 'queued';
END;
CREATE TRIGGER watch_takes_along AFTER DELETE ON watch BEGIN
	DELETE FROM derived WHERE subject = 'watch:' || OLD.id;
END;
