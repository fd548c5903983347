-- +goose Up
-- How many nets were not joined when files were made, and whether the board was still being filled and checked then, so that nobody knew.
ALTER TABLE handoff ADD COLUMN unjoined INTEGER NOT NULL DEFAULT 0;
ALTER TABLE handoff ADD COLUMN unchecked INTEGER NOT NULL DEFAULT 0;
