-- What is taken off a line and off a whole order, in millionths of a percent, and what bringing it costs the customer.
-- `price` stays what one really costs, after both; `list_price` is what it was before.
ALTER TABLE sales_order ADD COLUMN order_discount INTEGER NOT NULL DEFAULT 0 CHECK (order_discount BETWEEN 0 AND 100000000);
ALTER TABLE sales_order ADD COLUMN freight INTEGER NOT NULL DEFAULT 0 CHECK (freight >= 0);
ALTER TABLE order_line ADD COLUMN discount INTEGER NOT NULL DEFAULT 0 CHECK (discount BETWEEN 0 AND 100000000);
ALTER TABLE order_line ADD COLUMN list_price INTEGER NOT NULL DEFAULT 0 CHECK (list_price >= 0);
UPDATE order_line SET list_price = price;
