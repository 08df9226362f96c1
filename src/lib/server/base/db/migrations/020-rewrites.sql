-- What the lab changes of the page on its way, for this variant: JSON list; null where it changes nothing.
ALTER TABLE arm ADD COLUMN rewrites TEXT;

-- Trials that rehearse the mend of a line of the worklist.
CREATE INDEX trial_rehearses ON trial (options ->> '$.rehearses') WHERE options ->> '$.rehearses' IS NOT NULL;
