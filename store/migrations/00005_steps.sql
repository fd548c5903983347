-- +goose Up
CREATE INDEX journal_steps ON journal (project, revision, act, reverses, author, author_name); -- the undo history without reading the changes

-- +goose Down
DROP INDEX journal_steps;
