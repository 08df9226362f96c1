-- Where the work begins: clients, their sites, pages and setups.

-- A step's time as a metric.
ALTER TABLE load ADD COLUMN "stepShown" REAL;
ALTER TABLE load ADD COLUMN "stepQuiet" REAL;

-- Who the visitor is before the page of an arm is measured: JSON; null for an anonymous one.
ALTER TABLE arm ADD COLUMN before TEXT;
-- Named states of a site: signed in, basket filled.
CREATE TABLE visitor_state (
	id INTEGER PRIMARY KEY,
	site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
	name TEXT NOT NULL,
	-- JSON: where it begins, steps, cookies.
	body TEXT NOT NULL,
	UNIQUE (site_id, name)
) STRICT;

ALTER TABLE client ADD COLUMN currency TEXT NOT NULL DEFAULT 'EUR';
-- JSON: people, targets, margins, usual conditions, must-send list, report, figures for prices.
ALTER TABLE client ADD COLUMN settings TEXT NOT NULL DEFAULT '{}';
-- UTC ISO; null while the agency works for it.
ALTER TABLE client ADD COLUMN archived_at TEXT;

-- Further hosts of the site, by comma.
ALTER TABLE site ADD COLUMN hosts TEXT NOT NULL DEFAULT '';
ALTER TABLE site ADD COLUMN preview_host TEXT NOT NULL DEFAULT '';
-- Secret: "user:password".
ALTER TABLE site ADD COLUMN preview_access TEXT NOT NULL DEFAULT '';
-- Nearest place to its visitors; empty when not chosen.
ALTER TABLE site ADD COLUMN place TEXT NOT NULL DEFAULT '';
-- Visits a month to pages that are not in the list.
ALTER TABLE site ADD COLUMN rest_visits REAL NOT NULL DEFAULT 0;

ALTER TABLE page ADD COLUMN key TEXT NOT NULL DEFAULT '';
ALTER TABLE page ADD COLUMN visits REAL;
ALTER TABLE page ADD COLUMN conversions REAL;
ALTER TABLE page ADD COLUMN revenue REAL;
ALTER TABLE page ADD COLUMN lastmod TEXT;
ALTER TABLE page ADD COLUMN source TEXT NOT NULL DEFAULT 'pasted'
	CHECK (source IN ('sitemap', 'traffic', 'pasted', 'crawl', 'trial'));
-- It is one of those that the client's work looks at.
ALTER TABLE page ADD COLUMN is_chosen INTEGER NOT NULL DEFAULT 0;
UPDATE page SET key = page_key(url);
CREATE UNIQUE INDEX page_by_key ON page (site_id, key);
CREATE INDEX page_in_order ON page (site_id, is_chosen DESC, visits DESC, id);
CREATE INDEX page_by_type ON page (site_id, type, visits DESC, id);
-- Tags and classes of a page, by which its template is known: JSON list.
CREATE TABLE page_skeleton (
	page_id INTEGER PRIMARY KEY REFERENCES page (id) ON DELETE CASCADE,
	fetched_at TEXT NOT NULL,
	pieces TEXT NOT NULL
) STRICT;

-- What the agency's setups are made of: entered once, used by many sites.
CREATE TABLE component (
	id INTEGER PRIMARY KEY,
	kind TEXT NOT NULL,
	name TEXT NOT NULL,
	-- JSON: versions, prices, jobs, features, settings, recognition, note.
	body TEXT NOT NULL,
	UNIQUE (kind, name)
) STRICT;
CREATE TABLE site_component (
	site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
	component_id INTEGER NOT NULL REFERENCES component (id) ON DELETE CASCADE,
	version TEXT NOT NULL DEFAULT '',
	tier TEXT NOT NULL DEFAULT '',
	PRIMARY KEY (site_id, component_id)
) STRICT, WITHOUT ROWID;

-- What each load saw of hosts of others.
CREATE TABLE host_seen (
	load_id INTEGER NOT NULL REFERENCES load (id) ON DELETE CASCADE,
	host TEXT NOT NULL,
	requests INTEGER NOT NULL,
	wire_bytes REAL NOT NULL,
	blocking_ms REAL NOT NULL,
	tail_ms REAL NOT NULL,
	asked_by TEXT NOT NULL,
	is_seen INTEGER NOT NULL,
	PRIMARY KEY (load_id, host)
) STRICT, WITHOUT ROWID;
-- 1 once its hosts stand in `host_seen`: loads from before are read when the register is asked for.
ALTER TABLE load ADD COLUMN hosts_noted INTEGER NOT NULL DEFAULT 0;
-- What the analyst wrote down of a host.
CREATE TABLE third_party (
	client_id INTEGER NOT NULL REFERENCES client (id) ON DELETE CASCADE,
	host TEXT NOT NULL,
	owner TEXT NOT NULL DEFAULT '',
	purpose TEXT NOT NULL DEFAULT '',
	confirmed_at TEXT,
	PRIMARY KEY (client_id, host)
) STRICT, WITHOUT ROWID;

CREATE TRIGGER site_takes_along AFTER DELETE ON site BEGIN
	DELETE FROM job WHERE subject = 'site:' || OLD.id;
	DELETE FROM derived WHERE subject = 'site:' || OLD.id;
END;
