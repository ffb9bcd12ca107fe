ALTER TABLE `jobs` RENAME COLUMN `steps` TO `begun`;--> statement-breakpoint
UPDATE `jobs` SET `begun` = json_array(
  json_object('id', 'tidy', 'kind', 'tidy', 'on', json('true'), 'options', json_remove(json_extract(`begun`, '$.tidy'), '$.kind')),
  json_object('id', 'match', 'kind', 'match', 'on', iif(json_extract(`begun`, '$.match.on') = 0, json('false'), json('true')), 'options', json_remove(json_extract(`begun`, '$.match'), '$.kind', '$.on')),
  json_object('id', 'screen', 'kind', 'screen', 'on', json('true'), 'options', json_remove(json_extract(`begun`, '$.screen'), '$.kind')),
  json_object('id', 'append-email', 'kind', 'append-email', 'on', iif(json_extract(`begun`, '$.append.on') = 0, json('false'), json('true')), 'options', json_remove(json_extract(`begun`, '$.append'), '$.kind', '$.on')),
  json_object('id', 'verify', 'kind', 'verify', 'on', iif(json_extract(`begun`, '$.verify.on') = 0, json('false'), json('true')), 'options', json('{}'))
);--> statement-breakpoint
ALTER TABLE `jobs` ADD `sieve` text NOT NULL DEFAULT '[]';--> statement-breakpoint
ALTER TABLE `jobs` ADD `decisions` integer NOT NULL DEFAULT 0;--> statement-breakpoint
UPDATE `jobs` SET `summary` = NULL;--> statement-breakpoint
CREATE TABLE `decisions_2` (
  `id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
  `subject` text NOT NULL,
  `subject_id` integer NOT NULL,
  `author` text NOT NULL,
  `at` integer NOT NULL,
  `body` text NOT NULL,
  `undone_at` integer
);--> statement-breakpoint
INSERT INTO `decisions_2` SELECT `id`, 'job', `job_id`, 'you', `at`,
  CASE
    WHEN json_extract(`body`, '$.kind') = 'configure' THEN json_object('kind', 'configure', 'step', json_object(
      'id', replace(json_extract(`body`, '$.options.kind'), 'append', 'append-email'),
      'kind', replace(json_extract(`body`, '$.options.kind'), 'append', 'append-email'),
      'on', iif(json_extract(`body`, '$.options.on') = 0, json('false'), json('true')),
      'options', json_remove(json_extract(`body`, '$.options'), '$.kind', '$.on')))
    WHEN json_extract(`body`, '$.step') = 'append' THEN json_set(`body`, '$.step', 'append-email')
    ELSE `body`
  END, `undone_at` FROM `decisions`;--> statement-breakpoint
DROP TABLE `decisions`;--> statement-breakpoint
ALTER TABLE `decisions_2` RENAME TO `decisions`;--> statement-breakpoint
CREATE INDEX `decisions_subject` ON `decisions` (`subject`,`subject_id`,`id`);--> statement-breakpoint
UPDATE `decisions` SET `author` = 'schedule' WHERE json_extract(`body`, '$.kind') = 'bring-in'
  AND json_extract(`body`, '$.sourceId') IN (SELECT `source_id` FROM `pulls` WHERE `standing`);--> statement-breakpoint
UPDATE `jobs` SET `decisions` = (SELECT count(*) FROM `decisions` WHERE `subject_id` = `jobs`.`id` AND `undone_at` IS NULL);--> statement-breakpoint
UPDATE `jobs` SET `sieve` = json_array(
  json(coalesce((SELECT json_extract(`body`, '$.step') FROM `decisions` WHERE `subject_id` = `jobs`.`id` AND `undone_at` IS NULL
    AND json_extract(`body`, '$.step.id') = 'tidy' AND json_extract(`body`, '$.kind') = 'configure' ORDER BY `id` DESC LIMIT 1), json_extract(`begun`, '$[0]'))),
  json(coalesce((SELECT json_extract(`body`, '$.step') FROM `decisions` WHERE `subject_id` = `jobs`.`id` AND `undone_at` IS NULL
    AND json_extract(`body`, '$.step.id') = 'match' AND json_extract(`body`, '$.kind') = 'configure' ORDER BY `id` DESC LIMIT 1), json_extract(`begun`, '$[1]'))),
  json(coalesce((SELECT json_extract(`body`, '$.step') FROM `decisions` WHERE `subject_id` = `jobs`.`id` AND `undone_at` IS NULL
    AND json_extract(`body`, '$.step.id') = 'screen' AND json_extract(`body`, '$.kind') = 'configure' ORDER BY `id` DESC LIMIT 1), json_extract(`begun`, '$[2]'))),
  json(coalesce((SELECT json_extract(`body`, '$.step') FROM `decisions` WHERE `subject_id` = `jobs`.`id` AND `undone_at` IS NULL
    AND json_extract(`body`, '$.step.id') = 'append-email' AND json_extract(`body`, '$.kind') = 'configure' ORDER BY `id` DESC LIMIT 1), json_extract(`begun`, '$[3]'))),
  json(coalesce((SELECT json_extract(`body`, '$.step') FROM `decisions` WHERE `subject_id` = `jobs`.`id` AND `undone_at` IS NULL
    AND json_extract(`body`, '$.step.id') = 'verify' AND json_extract(`body`, '$.kind') = 'configure' ORDER BY `id` DESC LIMIT 1), json_extract(`begun`, '$[4]')))
);--> statement-breakpoint
ALTER TABLE `sources` ADD `origin` text NOT NULL DEFAULT '{}';--> statement-breakpoint
ALTER TABLE `sources` ADD `about` text NOT NULL DEFAULT 'people';--> statement-breakpoint
UPDATE `sources` SET `origin` = CASE json_extract(`format`, '$.kind')
  WHEN 'workbook' THEN json_object('kind', 'workbook', 'sheet', json_extract(`format`, '$.sheet'), 'headerRow', json_extract(`format`, '$.headerRow'))
  WHEN 'directory' THEN json_object('kind', 'directory', 'searchId', coalesce((SELECT `search_id` FROM `pulls` WHERE `source_id` = `sources`.`id`), 0))
  ELSE json_object('kind', 'table', 'encoding', json_extract(`format`, '$.encoding'), 'delimiter', json_extract(`format`, '$.delimiter'), 'headerRow', json_extract(`format`, '$.headerRow'))
END;--> statement-breakpoint
UPDATE `sources` SET `about` = 'companies', `columns` = json_set(`columns`, '$[8].target', 'sector', '$[9].target', 'headcount')
  WHERE json_extract(`format`, '$.kind') = 'directory'
  AND EXISTS (SELECT 1 FROM `records` WHERE `source_id` = `sources`.`id`)
  AND NOT EXISTS (SELECT 1 FROM `records` WHERE `source_id` = `sources`.`id` AND json_extract(`cells`, '$[0]') <> '');--> statement-breakpoint
ALTER TABLE `sources` DROP COLUMN `format`;--> statement-breakpoint
ALTER TABLE `sources` DROP COLUMN `complete`;--> statement-breakpoint
CREATE TABLE `facts_2` (
  `id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
  `kind` text NOT NULL,
  `question` text NOT NULL,
  `who` text NOT NULL,
  `answer` text NOT NULL,
  `asked_at` integer NOT NULL
);--> statement-breakpoint
INSERT INTO `facts_2` (`kind`, `question`, `who`, `answer`, `asked_at`) SELECT `kind`, `question`, `who`,
  iif(`kind` = 'catch-all' AND json_extract(`answer`, '$.state') = 'unclear', '{"state":"no-answer"}', `answer`), `asked_at` FROM `facts`;--> statement-breakpoint
DROP TABLE `facts`;--> statement-breakpoint
ALTER TABLE `facts_2` RENAME TO `facts`;--> statement-breakpoint
CREATE INDEX `facts_question` ON `facts` (`kind`,`question`,`who`,`id`);--> statement-breakpoint
ALTER TABLE `runs` ADD `result` text;--> statement-breakpoint
UPDATE `runs` SET `result` = iif(`message` = '', NULL, json_object('code', 'said', 'words', `message`)), `input` = CASE `kind`
  WHEN 'intake' THEN json_object('kind', 'bring-in', 'sourceId', json_extract(`input`, '$.sourceId'), 'rows', coalesce(json_extract(`input`, '$.rows'), 0))
  WHEN 'append' THEN json_object('kind', 'ask', 'step', 'append-email')
  WHEN 'verify' THEN json_object('kind', 'ask', 'step', 'verify')
  ELSE json_set(`input`, '$.kind', `kind`)
END;--> statement-breakpoint
ALTER TABLE `runs` DROP COLUMN `kind`;--> statement-breakpoint
ALTER TABLE `runs` DROP COLUMN `message`;--> statement-breakpoint
CREATE TABLE `export_rows_2` (
  `export_id` integer NOT NULL,
  `record_id` integer NOT NULL,
  `keys` text NOT NULL,
  PRIMARY KEY(`export_id`, `record_id`)
);--> statement-breakpoint
INSERT INTO `export_rows_2` SELECT `export_id`, `record_id`,
  iif(`email` = '', json_array('record:' || `record_id`), json_array('record:' || `record_id`, 'email:' || `email`)) FROM `export_rows`;--> statement-breakpoint
DROP TABLE `export_rows`;--> statement-breakpoint
ALTER TABLE `export_rows_2` RENAME TO `export_rows`;--> statement-breakpoint
ALTER TABLE `settings` ADD `version` integer NOT NULL DEFAULT 0;--> statement-breakpoint
ALTER TABLE `searches` ADD `version` integer NOT NULL DEFAULT 0;--> statement-breakpoint
ALTER TABLE `batches` RENAME TO `search_batches`;--> statement-breakpoint
ALTER TABLE `pick_lists` ADD `version` integer NOT NULL DEFAULT 0;--> statement-breakpoint
ALTER TABLE `picks` ADD `out` integer NOT NULL DEFAULT 0;
