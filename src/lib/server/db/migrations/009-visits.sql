-- The visits' script of a site: the key by which its page views are known, and what it is to report.
CREATE TABLE visit_source (
	site_id INTEGER PRIMARY KEY REFERENCES site (id) ON DELETE CASCADE,
	key TEXT NOT NULL UNIQUE,
	-- JSON: sampling, timings, goals, hand-over, retention.
	settings TEXT NOT NULL,
	created_at TEXT NOT NULL
) STRICT;

-- Markers of sites: a release, a plugin, a host. `at` is the first day on which it was live.
ALTER TABLE marker ADD COLUMN site_id INTEGER REFERENCES site (id) ON DELETE CASCADE;
-- Pages whose path begins so; empty for the whole site.
ALTER TABLE marker ADD COLUMN path TEXT NOT NULL DEFAULT '';
ALTER TABLE marker ADD COLUMN kind TEXT NOT NULL DEFAULT 'other'
	CHECK (kind IN ('release', 'plugin', 'host', 'content', 'other'));
CREATE INDEX marker_of_site ON marker (site_id, at);

-- Lists of many pages draw the windows of one figure, and need not read whole histograms for that.
ALTER TABLE field_reading ADD COLUMN lcp REAL;
UPDATE field_reading SET lcp = metrics ->> '$.lcp.p75' WHERE metrics IS NOT NULL;
