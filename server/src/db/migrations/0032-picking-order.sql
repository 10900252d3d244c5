-- The order in which bins are passed is called picking order, on screens and here.
ALTER TABLE bin RENAME COLUMN walk_order TO picking_order;
