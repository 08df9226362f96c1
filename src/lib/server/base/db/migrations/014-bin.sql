-- Since when a trial runs before all others; null for one that takes its turn.
ALTER TABLE trial ADD COLUMN first_at TEXT;

-- Rises with each change, so that two who change a client at once hear of each other.
ALTER TABLE client ADD COLUMN revision INTEGER NOT NULL DEFAULT 0;

-- What was deleted at one press, for as long as it can be taken back. JSON by kind.
CREATE TABLE bin (
	id INTEGER PRIMARY KEY,
	kind TEXT NOT NULL CHECK (kind IN ('marker', 'component', 'block')),
	client_id INTEGER REFERENCES client (id) ON DELETE CASCADE,
	name TEXT NOT NULL,
	deleted_at TEXT NOT NULL,
	body TEXT NOT NULL
) STRICT;
CREATE INDEX bin_of_client ON bin (client_id);
