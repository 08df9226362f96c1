-- What became of a step of a log, and why; and of a step that takes another one back, which.
ALTER TABLE arm ADD COLUMN decision TEXT CHECK (decision IN ('kept', 'weakened', 'taken-back', 'open'));
ALTER TABLE arm ADD COLUMN decision_note TEXT;
ALTER TABLE arm ADD COLUMN undoes INTEGER;
-- What is done after each load of this variant, where that is not what is done in all; JSON.
ALTER TABLE arm ADD COLUMN steps TEXT;
