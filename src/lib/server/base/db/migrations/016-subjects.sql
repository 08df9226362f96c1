-- What a job, something derived or a file is about: two columns, where a text was taken apart.
DROP TRIGGER arm_takes_along;
DROP TRIGGER artifact_unused;
DROP TRIGGER load_takes_along;
DROP TRIGGER reading_takes_along;
DROP TRIGGER report_version_takes_along;
DROP TRIGGER site_takes_along;
DROP TRIGGER trial_answers_anew;
DROP TRIGGER trial_explains_anew;
DROP TRIGGER trial_takes_along;
DROP TRIGGER watch_takes_along;

ALTER TABLE job ADD COLUMN subject_kind TEXT NOT NULL DEFAULT 'nobody';
ALTER TABLE job ADD COLUMN subject_id INTEGER NOT NULL DEFAULT 0;
-- The load whose page is asked again; it may be gone.
ALTER TABLE job ADD COLUMN of_load INTEGER;
UPDATE job SET subject_kind = substr(subject, 1, instr(subject, ':') - 1),
	subject_id = CAST(substr(subject, instr(subject, ':') + 1) AS INTEGER) WHERE instr(subject, ':') > 0;
UPDATE job SET of_load = CAST("order" ->> '$.of' AS INTEGER), "order" = json_remove("order", '$.of')
	WHERE kind = 'load' AND json_type("order", '$.of') IS NOT NULL;
DROP INDEX job_by_subject;
DROP INDEX job_derives_once;
ALTER TABLE job DROP COLUMN subject;
CREATE INDEX job_by_subject ON job (subject_kind, subject_id, status);
CREATE INDEX job_of_load ON job (of_load) WHERE of_load IS NOT NULL;
-- What waits to be derived is asked for once, while one that is under way may be asked for again.
CREATE UNIQUE INDEX job_derives_once ON job (subject_kind, subject_id, "order") WHERE kind = 'derive' AND status = 'queued';

CREATE TABLE derived_2 (
	subject_kind TEXT NOT NULL,
	subject_id INTEGER NOT NULL,
	-- `judgement`, `outcome`, `evidence` and others
	kind TEXT NOT NULL,
	version TEXT NOT NULL,
	fingerprint TEXT NOT NULL,
	body TEXT NOT NULL,
	PRIMARY KEY (subject_kind, subject_id, kind)
) STRICT;
INSERT INTO derived_2 SELECT substr(subject, 1, instr(subject, ':') - 1),
	CAST(substr(subject, instr(subject, ':') + 1) AS INTEGER), kind, version, fingerprint, body FROM derived;
DROP TABLE derived;
ALTER TABLE derived_2 RENAME TO derived;

CREATE TABLE artifact_use_2 (
	owner_kind TEXT NOT NULL,
	owner_id INTEGER NOT NULL,
	-- `record`, `frame`, `picture`, `step-picture`, `difference/desktop-4`
	role TEXT NOT NULL,
	position INTEGER NOT NULL DEFAULT 0,
	sha256 TEXT NOT NULL REFERENCES artifact (sha256),
	PRIMARY KEY (owner_kind, owner_id, role, position)
) STRICT, WITHOUT ROWID;
INSERT INTO artifact_use_2 SELECT substr(owner, 1, instr(owner, ':') - 1),
	CAST(substr(owner, instr(owner, ':') + 1) AS INTEGER), role, position, sha256 FROM artifact_use;
DROP TABLE artifact_use;
ALTER TABLE artifact_use_2 RENAME TO artifact_use;
CREATE INDEX artifact_use_by_artifact ON artifact_use (sha256);

CREATE TRIGGER artifact_unused AFTER DELETE ON artifact_use
	WHEN NOT EXISTS (SELECT 1 FROM artifact_use WHERE sha256 = OLD.sha256) BEGIN
	DELETE FROM artifact WHERE sha256 = OLD.sha256;
END;
CREATE TRIGGER load_takes_along AFTER DELETE ON load BEGIN
	DELETE FROM artifact_use WHERE owner_kind = 'load' AND owner_id = OLD.id;
END;
CREATE TRIGGER arm_takes_along AFTER DELETE ON arm BEGIN
	DELETE FROM job WHERE subject_kind = 'arm' AND subject_id = OLD.id;
END;
CREATE TRIGGER trial_takes_along AFTER DELETE ON trial BEGIN
	DELETE FROM job WHERE subject_kind = 'trial' AND subject_id = OLD.id;
	DELETE FROM derived WHERE subject_kind = 'trial' AND subject_id = OLD.id;
	DELETE FROM artifact_use WHERE owner_kind = 'trial' AND owner_id = OLD.id;
END;
CREATE TRIGGER site_takes_along AFTER DELETE ON site BEGIN
	DELETE FROM job WHERE subject_kind = 'site' AND subject_id = OLD.id;
	DELETE FROM derived WHERE subject_kind = 'site' AND subject_id = OLD.id;
END;
CREATE TRIGGER report_version_takes_along AFTER DELETE ON report_version BEGIN
	DELETE FROM artifact_use WHERE owner_kind = 'report' AND owner_id = OLD.id;
	DELETE FROM job WHERE subject_kind = 'report' AND subject_id = OLD.id;
END;
CREATE TRIGGER reading_takes_along AFTER DELETE ON reading BEGIN
	DELETE FROM job WHERE subject_kind = 'reading' AND subject_id = OLD.id AND status = 'queued';
END;
CREATE TRIGGER watch_takes_along AFTER DELETE ON watch BEGIN
	DELETE FROM derived WHERE subject_kind = 'watch' AND subject_id = OLD.id;
END;
CREATE TRIGGER trial_answers_anew AFTER UPDATE OF inputs ON trial WHEN NEW.status NOT IN ('draft', 'queued') BEGIN
	INSERT OR IGNORE INTO job (kind, subject_kind, subject_id, "order", priority, created_at)
		VALUES ('derive', 'trial', NEW.id, '"judgement"', 6, strftime('%Y-%m-%dT%H:%M:%fZ', 'now'));
END;
CREATE TRIGGER trial_explains_anew AFTER UPDATE OF inputs ON trial WHEN NEW.status IN ('waiting', 'done', 'stopped') BEGIN
	INSERT OR IGNORE INTO job (kind, subject_kind, subject_id, "order", priority, created_at)
		VALUES ('derive', 'trial', NEW.id, '"evidence"', 4, strftime('%Y-%m-%dT%H:%M:%fZ', 'now'));
END;

-- Rows that others point at are found without reading a whole table.
CREATE INDEX arm_of_page ON arm (page_id) WHERE page_id IS NOT NULL;
CREATE INDEX load_of_arm ON load (arm_id) WHERE arm_id IS NOT NULL;
CREATE INDEX load_of_client ON load (client_id) WHERE client_id IS NOT NULL;
CREATE INDEX load_of_url ON load (url);
CREATE INDEX settling_of_trial ON settling (trial_id);
CREATE INDEX marker_of_trial ON marker (trial_id) WHERE trial_id IS NOT NULL;
CREATE INDEX trial_place_of_arm ON trial_place (arm_id);
CREATE INDEX site_component_of_component ON site_component (component_id);
CREATE INDEX reading_place_of_page ON reading_place (watched_page_id);
CREATE INDEX reading_figure_of_load ON reading_figure (load_id) WHERE load_id IS NOT NULL;
CREATE INDEX trial_leased ON trial (leased_at) WHERE leased_at IS NOT NULL;
