CREATE TABLE `harvests` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`job_id` integer NOT NULL,
	`source_id` integer NOT NULL,
	`run_id` integer NOT NULL,
	`name` text NOT NULL,
	`start` text NOT NULL,
	`file` text NOT NULL,
	`set` text NOT NULL,
	`next` text NOT NULL,
	`stop` text NOT NULL,
	`seconds` real NOT NULL,
	`site_seconds` real DEFAULT 0 NOT NULL,
	`every_days` integer,
	`next_at` integer,
	`round` integer DEFAULT 1 NOT NULL,
	`number` integer DEFAULT 1 NOT NULL,
	`address` text NOT NULL,
	`last_number` integer DEFAULT 0 NOT NULL,
	`end` text
);
--> statement-breakpoint
CREATE INDEX `harvests_job` ON `harvests` (`job_id`);
--> statement-breakpoint
CREATE TABLE `harvest_pages` (
	`harvest_id` integer NOT NULL,
	`round` integer NOT NULL,
	`number` integer NOT NULL,
	`address` text NOT NULL,
	`state` text NOT NULL,
	`rows` integer NOT NULL,
	`fresh` integer NOT NULL,
	`yours` integer NOT NULL,
	`left` integer NOT NULL,
	`lowest` real,
	`file` text DEFAULT '' NOT NULL,
	`ms` integer NOT NULL,
	`at` integer NOT NULL,
	PRIMARY KEY(`harvest_id`, `round`, `number`)
);
--> statement-breakpoint
CREATE TABLE `harvested` (
	`harvest_id` integer NOT NULL,
	`key` text NOT NULL,
	`source_id` integer NOT NULL,
	PRIMARY KEY(`harvest_id`, `key`)
) WITHOUT ROWID;
--> statement-breakpoint
CREATE TABLE `next_pages` (
	`host` text PRIMARY KEY NOT NULL,
	`next` text NOT NULL
);
--> statement-breakpoint
UPDATE `runs` SET `input` = json_set(json_remove(`input`, '$.onlyNew'), '$.take', iif(json_extract(`input`, '$.onlyNew'), 'new', 'all')) WHERE json_extract(`input`, '$.kind') = 'bring-in';
--> statement-breakpoint
ALTER TABLE `row_issues` ADD `mended_by` integer;
