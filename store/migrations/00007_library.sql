-- +goose Up
-- The library of the workspace: every version of every part, none ever changed. What a body means is told by format
-- (design.Version). The latest version that is not withdrawn is what is offered.
CREATE TABLE library_part (
    name      TEXT NOT NULL COLLATE NOCASE,
    version   INTEGER NOT NULL,
    format    INTEGER NOT NULL,
    body      BLOB NOT NULL,
    made      TEXT NOT NULL,
    who       TEXT NOT NULL DEFAULT '',
    note      TEXT NOT NULL DEFAULT '',
    withdrawn TEXT,
    PRIMARY KEY (name, version)
);
-- How footprints are generated, by names that people gave it.
CREATE TABLE making (
    name TEXT PRIMARY KEY COLLATE NOCASE,
    body TEXT NOT NULL,
    made TEXT NOT NULL
);

-- +goose Down
DROP TABLE making;
DROP TABLE library_part;
