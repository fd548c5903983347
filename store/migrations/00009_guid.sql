-- +goose Up
-- What names a project among all projects, wherever its files go.
ALTER TABLE project ADD COLUMN guid TEXT NOT NULL DEFAULT '';
UPDATE project SET guid = lower(hex(randomblob(4)) || '-' || hex(randomblob(2)) || '-4' || substr(hex(randomblob(2)), 2) || '-8' || substr(hex(randomblob(2)), 2)
    || '-' || hex(randomblob(6)));
CREATE UNIQUE INDEX project_guid ON project (guid);
