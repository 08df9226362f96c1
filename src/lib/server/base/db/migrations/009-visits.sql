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

-- Lists of many pages draw the windows of one figure, and show the newest figures without their histograms.
ALTER TABLE field_reading ADD COLUMN is_empty INTEGER NOT NULL DEFAULT 0;
ALTER TABLE field_reading ADD COLUMN lcp REAL;
-- JSON as in `metrics`, with empty bins.
ALTER TABLE field_reading ADD COLUMN figures TEXT;
UPDATE field_reading SET is_empty = metrics IS NULL;
UPDATE field_reading SET
	lcp = metrics ->> '$.lcp.p75',
	figures = (SELECT json_group_object(key, json_set(value, '$.bins', json('[]'))) FROM json_each(field_reading.metrics))
	WHERE metrics IS NOT NULL;
-- Holds all that a list reads: rows with their histograms lie over many pages of the file.
CREATE INDEX field_reading_lines ON field_reading (site_id, until_day, page_id, device, source, from_day, is_empty, lcp);
