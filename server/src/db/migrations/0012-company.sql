-- What a company says of itself when it begins: the days it works, and how far its set-up is.

-- days of the week, Monday is 1
ALTER TABLE company ADD COLUMN work_days TEXT NOT NULL DEFAULT '[1,2,3,4,5]';
-- the step of the set-up that is next; null once it is over, as it is for every company that was there before
ALTER TABLE company ADD COLUMN setup_step INTEGER CHECK (setup_step BETWEEN 1 AND 5);
ALTER TABLE person ADD COLUMN version INTEGER NOT NULL DEFAULT 0;
