-- Where a load ended, where that is another page than the one that was asked for; and its markup in short, so that
-- loads before a rebuild can be told from those since. Both null until they were read from the record.
ALTER TABLE load ADD COLUMN landed TEXT;
ALTER TABLE load ADD COLUMN markup TEXT;

-- How a site's pages are asked for where an address does not say.
ALTER TABLE site ADD COLUMN scheme TEXT NOT NULL DEFAULT 'https' CHECK (scheme IN ('https', 'http'));
