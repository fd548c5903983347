-- +goose Up
ALTER TABLE journal ADD COLUMN author TEXT;      -- who made the edit: a name of the browser's choosing
ALTER TABLE journal ADD COLUMN author_name TEXT; -- as others see them
ALTER TABLE project ADD COLUMN parts INTEGER;    -- packages of its circuit, in all uses of their sheets
ALTER TABLE project ADD COLUMN trouble TEXT;     -- why it could not be opened when that was last tried

-- +goose Down
ALTER TABLE project DROP COLUMN trouble;
ALTER TABLE project DROP COLUMN parts;
ALTER TABLE journal DROP COLUMN author_name;
ALTER TABLE journal DROP COLUMN author;
