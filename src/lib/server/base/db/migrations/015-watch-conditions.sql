-- The conditions that a watch or a standing began with: what changes in the workshop does not part a history.
CREATE TABLE watch_conditions (
	watch_id INTEGER NOT NULL REFERENCES watch (id) ON DELETE CASCADE,
	position INTEGER NOT NULL,
	id TEXT NOT NULL,
	name TEXT NOT NULL,
	summary TEXT NOT NULL,
	hash TEXT NOT NULL REFERENCES conditions_version (hash),
	PRIMARY KEY (watch_id, id)
) STRICT, WITHOUT ROWID;
CREATE INDEX watch_conditions_version ON watch_conditions (hash);

-- What shipped until now, unless the analyst had changed it.
CREATE TEMP TABLE kept AS
	SELECT id, body FROM conditions
	UNION ALL
	SELECT id, body FROM (
		SELECT 'phone' AS id, '{"id":"phone","name":"Phone","summary":"A mid-range phone on mobile broadband","device":{"width":393,"height":851,"pixelRatio":2.75,"touch":true,"mobile":true,"targetSpeed":45,"userAgent":"Mozilla/5.0 (Linux; Android 14; ZafraPhone) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/{major}.0.0.0 Mobile Safari/537.36"},"network":{"roundTripMs":110,"downKbps":8000,"upKbps":2400,"dnsMs":0},"capMs":45000,"quietMs":2000}' AS body
		UNION ALL
		SELECT 'desktop', '{"id":"desktop","name":"Desktop","summary":"An office desktop on cable","device":{"width":1366,"height":768,"pixelRatio":1,"touch":false,"mobile":false,"targetSpeed":null,"userAgent":null},"network":{"roundTripMs":30,"downKbps":40000,"upKbps":10000,"dnsMs":0},"capMs":45000,"quietMs":2000}'
	) WHERE id NOT IN (SELECT id FROM conditions);
INSERT OR IGNORE INTO conditions_version (hash, body)
	SELECT conditions_hash(body), conditions_body(body) FROM kept
	WHERE id IN (SELECT value FROM watch, json_each(watch.settings, '$.conditions'));
INSERT INTO watch_conditions (watch_id, position, id, name, summary, hash)
	SELECT watch.id, wanted.key, kept.id, kept.body ->> '$.name', coalesce(kept.body ->> '$.summary', ''), conditions_hash(kept.body)
	FROM watch, json_each(watch.settings, '$.conditions') AS wanted JOIN kept ON kept.id = wanted.value;
DROP TABLE kept;
