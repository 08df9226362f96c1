-- What real visitors had: readings of pages and origins, by window. They are kept for ever.
CREATE TABLE field_reading (
	id INTEGER PRIMARY KEY,
	site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
	-- Null for the whole origin.
	page_id INTEGER REFERENCES page (id) ON DELETE CASCADE,
	device TEXT NOT NULL CHECK (device IN ('phone', 'desktop')),
	source TEXT NOT NULL CHECK (source IN ('panel', 'visits', 'csv')),
	-- First and last day of the window.
	from_day TEXT NOT NULL,
	until_day TEXT NOT NULL,
	-- JSON by metric; null where the source had too few visits.
	metrics TEXT,
	fetched_at TEXT NOT NULL
) STRICT;
CREATE UNIQUE INDEX field_reading_once ON field_reading (site_id, coalesce(page_id, 0), device, source, until_day);
CREATE INDEX field_reading_by_page ON field_reading (page_id, device, until_day);
