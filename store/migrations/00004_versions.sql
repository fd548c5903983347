-- +goose Up
ALTER TABLE object ADD COLUMN version INTEGER NOT NULL DEFAULT 1;  -- of what its body means (design.Version)
ALTER TABLE journal ADD COLUMN version INTEGER NOT NULL DEFAULT 1; -- of what its changes mean

-- +goose Down
ALTER TABLE journal DROP COLUMN version;
ALTER TABLE object DROP COLUMN version;
