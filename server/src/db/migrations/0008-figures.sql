-- What one was said to cost, beside what all of it came to: the latest cost is told again when a later one is undone.
ALTER TABLE receipt_line ADD COLUMN unit_cost INTEGER CHECK (unit_cost >= 0);
ALTER TABLE price_difference_line ADD COLUMN unit_cost INTEGER CHECK (unit_cost >= 0);

-- The last movement there was when a line was counted: what has moved since is left alone.
ALTER TABLE stock_count_line ADD COLUMN counted_after INTEGER;
-- What one of what was found is worth, where nobody ever said what it costs.
ALTER TABLE stock_count_line ADD COLUMN unit_cost INTEGER CHECK (unit_cost >= 0);

-- The build that what was taken apart came from, where it was known.
ALTER TABLE take_apart ADD COLUMN build_id INTEGER REFERENCES build;

-- What a revaluation made of standard costs, so that undoing it brings them back.
CREATE TABLE revalued_standard (
  document_id INTEGER NOT NULL REFERENCES document,
  item_id INTEGER NOT NULL REFERENCES item,
  cost_before INTEGER,
  cost_after INTEGER NOT NULL,
  PRIMARY KEY (document_id, item_id)
) STRICT;
