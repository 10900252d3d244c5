-- A job tag collects what belongs together across orders, builds, repairs, purchases and adjustments.
ALTER TABLE purchase_order ADD COLUMN job_tag TEXT NOT NULL DEFAULT '';
CREATE INDEX purchase_order_by_job ON purchase_order (job_tag) WHERE job_tag <> '';
CREATE INDEX sales_order_by_job ON sales_order (job_tag) WHERE job_tag <> '';
-- of a document that is for nothing else: an adjustment, a take-apart
ALTER TABLE document ADD COLUMN job_tag TEXT NOT NULL DEFAULT '';
CREATE INDEX document_by_job ON document (job_tag) WHERE job_tag <> '';
