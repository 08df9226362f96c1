-- After the rounds of a standing each page is loaded twice more: once waiting on, once with an input. What comes late
-- is seen in them; they count in no figure.
ALTER TABLE reading_place ADD COLUMN late TEXT CHECK (late IN ('postponed', 'held-back'));
