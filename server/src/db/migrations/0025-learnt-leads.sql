-- Whether what a supplier's deliveries taught counts where it is longer than what they state, and the days they deliver on.
ALTER TABLE supplier ADD COLUMN learn_leads INTEGER NOT NULL DEFAULT 1 CHECK (learn_leads IN (0, 1));
ALTER TABLE supplier ADD COLUMN delivery_days TEXT NOT NULL DEFAULT '[1,2,3,4,5,6,7]' CHECK (json_valid(delivery_days));
