-- +goose Up
ALTER TABLE project ADD COLUMN example INTEGER NOT NULL DEFAULT 0; -- everybody may look at it and take a copy, nobody changes it
DROP INDEX project_name;
CREATE UNIQUE INDEX project_name ON project (name COLLATE NOCASE) WHERE deleted IS NULL AND example = 0;
CREATE UNIQUE INDEX example_name ON project (name COLLATE NOCASE) WHERE deleted IS NULL AND example = 1;

CREATE TABLE glance (                   -- how a project looked at a revision, for the list of projects
    project  INTEGER PRIMARY KEY REFERENCES project (id) ON DELETE CASCADE,
    revision INTEGER NOT NULL,
    body     TEXT NOT NULL,
    picture  BLOB NOT NULL
);

-- +goose Down
DROP TABLE glance;
DELETE FROM project WHERE example = 1;
DROP INDEX example_name;
DROP INDEX project_name;
CREATE UNIQUE INDEX project_name ON project (name COLLATE NOCASE) WHERE deleted IS NULL;
ALTER TABLE project DROP COLUMN example;
