-- Leases end; what a lab does has an end; a trial counts the changes of what its answer is made from.
ALTER TABLE job ADD COLUMN lease_until TEXT;
ALTER TABLE single ADD COLUMN lease_until TEXT;
-- When the load under way must be over.
ALTER TABLE lab_state ADD COLUMN load_until TEXT;
ALTER TABLE lab_state ADD COLUMN sandboxed INTEGER;

-- Grows whenever a load comes, goes or is left out, or the design or state of the trial changes.
ALTER TABLE trial ADD COLUMN inputs INTEGER NOT NULL DEFAULT 1;
CREATE TRIGGER load_comes AFTER INSERT ON load WHEN NEW.trial_id IS NOT NULL BEGIN
	UPDATE trial SET inputs = inputs + 1 WHERE id = NEW.trial_id;
END;
CREATE TRIGGER load_goes AFTER DELETE ON load WHEN OLD.trial_id IS NOT NULL BEGIN
	UPDATE trial SET inputs = inputs + 1 WHERE id = OLD.trial_id;
END;
CREATE TRIGGER load_excluded AFTER UPDATE OF excluded ON load WHEN NEW.trial_id IS NOT NULL BEGIN
	UPDATE trial SET inputs = inputs + 1 WHERE id = NEW.trial_id;
END;
CREATE TRIGGER trial_changes AFTER UPDATE OF options, rounds, primary_metrics, status ON trial
	WHEN OLD.options <> NEW.options OR OLD.rounds <> NEW.rounds OR OLD.primary_metrics <> NEW.primary_metrics OR OLD.status <> NEW.status BEGIN
	UPDATE trial SET inputs = inputs + 1 WHERE id = NEW.id;
END;
CREATE INDEX trial_by_status ON trial (status);
CREATE INDEX load_by_client ON load (client_id, id) WHERE trial_id IS NULL;
CREATE INDEX single_by_trial ON single (trial_id);
CREATE INDEX single_by_status ON single (status);
