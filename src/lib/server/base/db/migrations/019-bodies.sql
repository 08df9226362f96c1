-- What was worked out of a file that came with an audit's loads: it stays when the file itself is gone.
CREATE TABLE audit_body (
	audit_id INTEGER NOT NULL REFERENCES audit (id) ON DELETE CASCADE,
	url TEXT NOT NULL,
	-- JSON of its facts.
	facts TEXT NOT NULL,
	PRIMARY KEY (audit_id, url)
) STRICT;

-- What came with loads is dropped after some days.
CREATE INDEX artifact_use_body ON artifact_use (owner_id) WHERE role IN ('bodies', 'body');
