-- +goose Up
-- The copper of a large board as columns, so that opening it does not read every row. The rows of object hold all that
-- is in it; what changed of them since, in whichever way, stands in fresh.
CREATE TABLE checkpoint (
    project INTEGER PRIMARY KEY REFERENCES project (id) ON DELETE CASCADE,
    version INTEGER NOT NULL,           -- of what its body means (design.Version)
    pieces  INTEGER NOT NULL,
    body    BLOB NOT NULL
);
CREATE TABLE fresh (
    project INTEGER NOT NULL REFERENCES project (id) ON DELETE CASCADE,
    id      INTEGER NOT NULL,           -- of an object that is to be read from its row, if it has one
    PRIMARY KEY (project, id)
) WITHOUT ROWID;
-- +goose StatementBegin
CREATE TRIGGER object_put AFTER INSERT ON object WHEN EXISTS (SELECT 1 FROM checkpoint WHERE project = new.project) BEGIN
    INSERT INTO fresh SELECT new.project, new.id WHERE NOT EXISTS (SELECT 1 FROM fresh WHERE project = new.project AND id = new.id);
END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER object_changed AFTER UPDATE ON object WHEN EXISTS (SELECT 1 FROM checkpoint WHERE project = new.project) BEGIN
    INSERT INTO fresh SELECT old.project, old.id WHERE NOT EXISTS (SELECT 1 FROM fresh WHERE project = old.project AND id = old.id);
    INSERT INTO fresh SELECT new.project, new.id WHERE NOT EXISTS (SELECT 1 FROM fresh WHERE project = new.project AND id = new.id);
END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER object_gone AFTER DELETE ON object WHEN EXISTS (SELECT 1 FROM checkpoint WHERE project = old.project) BEGIN
    INSERT INTO fresh SELECT old.project, old.id WHERE NOT EXISTS (SELECT 1 FROM fresh WHERE project = old.project AND id = old.id);
END;
-- +goose StatementEnd

-- +goose Down
DROP TRIGGER object_gone;
DROP TRIGGER object_changed;
DROP TRIGGER object_put;
DROP TABLE fresh;
DROP TABLE checkpoint;
