-- How busy the machine was: beside each load, and minute by minute.

ALTER TABLE load ADD COLUMN disturbed INTEGER NOT NULL DEFAULT 0;
-- Stolen and foreign share of the processor time wanted over the load; null when unknown.
ALTER TABLE load ADD COLUMN others_share REAL;
ALTER TABLE load ADD COLUMN browser TEXT;

-- Loads that were made here, by time: the sheet of the lab looks at the last day.
CREATE INDEX load_by_start ON load (started_at) WHERE source = 'lab';

-- Minutes in which a lab measured nothing and watched its machine.
CREATE TABLE quiet_minute (
	host TEXT NOT NULL,
	-- UTC ISO, its end.
	at TEXT NOT NULL,
	-- Stolen and foreign share of the processor time wanted; null when the machine does not tell.
	others_share REAL,
	PRIMARY KEY (host, at)
) STRICT, WITHOUT ROWID;

-- Of a load in which the lab waited on or made an input: what came late, as JSON; null of all others.
ALTER TABLE load ADD COLUMN late TEXT;

-- What must be there, or gone, in the loads of an arm: JSON list of checks.
ALTER TABLE arm ADD COLUMN checks TEXT;
-- How the site's cache is emptied before each of its loads: JSON; null leaves it.
ALTER TABLE arm ADD COLUMN cold TEXT;
-- Which checks a load met, and when what must be sent left: JSON; null where its trial asks for neither.
ALTER TABLE load ADD COLUMN seen TEXT;
