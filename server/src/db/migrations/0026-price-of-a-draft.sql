-- What one is to sell at once the draft is in use; null where its price stays as it is.
ALTER TABLE revision ADD COLUMN sell_price INTEGER CHECK (sell_price >= 0);
