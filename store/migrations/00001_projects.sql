-- +goose Up
CREATE TABLE project (
    id       INTEGER PRIMARY KEY,
    name     TEXT NOT NULL,
    created  TEXT NOT NULL,
    changed  TEXT NOT NULL,
    deleted  TEXT,                      -- when it was deleted; it can be brought back
    revision INTEGER NOT NULL DEFAULT 0,
    next_id  INTEGER NOT NULL
);
CREATE UNIQUE INDEX project_name ON project (name COLLATE NOCASE) WHERE deleted IS NULL;

CREATE TABLE object (
    project INTEGER NOT NULL REFERENCES project (id) ON DELETE CASCADE,
    id      INTEGER NOT NULL,
    kind    TEXT NOT NULL,
    body    TEXT NOT NULL,
    PRIMARY KEY (project, id)
) WITHOUT ROWID;

CREATE TABLE journal (
    project  INTEGER NOT NULL REFERENCES project (id) ON DELETE CASCADE,
    revision INTEGER NOT NULL,
    made     TEXT NOT NULL,
    act      TEXT NOT NULL,             -- the command's name, or undo, or redo
    reverses INTEGER,                   -- of undo and redo: the revision taken back
    ref      TEXT,                      -- the sender's own name for the edit
    changes  TEXT NOT NULL,
    PRIMARY KEY (project, revision)
) WITHOUT ROWID;
CREATE UNIQUE INDEX journal_ref ON journal (project, ref) WHERE ref IS NOT NULL;

CREATE TABLE handoff (
    project     INTEGER PRIMARY KEY REFERENCES project (id) ON DELETE CASCADE,
    made        TEXT NOT NULL,
    revision    INTEGER NOT NULL,
    fingerprint TEXT NOT NULL,
    findings    INTEGER NOT NULL,
    archive     BLOB NOT NULL
);

-- +goose Down
DROP TABLE handoff;
DROP TABLE journal;
DROP TABLE object;
DROP TABLE project;
