CREATE TABLE `batches` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`search_id` integer NOT NULL,
	`position` integer NOT NULL,
	`search` text NOT NULL,
	`kept` text DEFAULT '{}' NOT NULL,
	`count` integer NOT NULL
);
--> statement-breakpoint
CREATE INDEX `batches_search` ON `batches` (`search_id`,`position`);--> statement-breakpoint
CREATE TABLE `charges` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`job_id` integer NOT NULL,
	`who` text NOT NULL,
	`question` text NOT NULL,
	`cents` integer NOT NULL,
	`reason` text NOT NULL,
	`at` integer NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `charges_fact` ON `charges` (`who`,`question`);--> statement-breakpoint
CREATE INDEX `charges_job` ON `charges` (`job_id`);--> statement-breakpoint
CREATE TABLE `contacts` (
	`outcome` integer NOT NULL,
	`id` integer NOT NULL,
	`hash` text NOT NULL,
	`record_ids` text NOT NULL,
	`records` integer NOT NULL,
	`first_name` text NOT NULL,
	`last_name` text NOT NULL,
	`title` text NOT NULL,
	`company` text NOT NULL,
	`city` text NOT NULL,
	`email` text NOT NULL,
	`person` text NOT NULL,
	`extra` text NOT NULL,
	`value_from` text NOT NULL,
	`sources` text NOT NULL,
	`merge_chance` real NOT NULL,
	`via` text NOT NULL,
	`alternatives` text NOT NULL,
	`verdict` text NOT NULL,
	`reason` text NOT NULL,
	`asked_at` integer NOT NULL,
	`stop` integer NOT NULL,
	`state` text NOT NULL,
	`code` text NOT NULL,
	`why` text NOT NULL,
	`search` text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `contacts_id` ON `contacts` (`outcome`,`id`,`stop`,`state`);--> statement-breakpoint
CREATE INDEX `contacts_stop` ON `contacts` (`outcome`,`stop`,`state`,`id`);--> statement-breakpoint
CREATE INDEX `contacts_last` ON `contacts` (`outcome`,`last_name`,`id`,`stop`,`state`);--> statement-breakpoint
CREATE INDEX `contacts_title` ON `contacts` (`outcome`,`title`,`id`,`stop`,`state`);--> statement-breakpoint
CREATE INDEX `contacts_company` ON `contacts` (`outcome`,`company`,`id`,`stop`,`state`);--> statement-breakpoint
CREATE INDEX `contacts_city` ON `contacts` (`outcome`,`city`,`id`,`stop`,`state`);--> statement-breakpoint
CREATE INDEX `contacts_email` ON `contacts` (`outcome`,`email`,`id`,`stop`,`state`);--> statement-breakpoint
CREATE INDEX `contacts_verdict` ON `contacts` (`outcome`,`verdict`,`id`,`stop`,`state`);--> statement-breakpoint
CREATE INDEX `contacts_records` ON `contacts` (`outcome`,`records`,`id`,`stop`,`state`);--> statement-breakpoint
CREATE INDEX `contacts_search` ON `contacts` (`outcome`,`search`,`stop`,`state`);--> statement-breakpoint
CREATE TABLE `decisions` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`job_id` integer NOT NULL,
	`at` integer NOT NULL,
	`body` text NOT NULL,
	`undone_at` integer
);
--> statement-breakpoint
CREATE INDEX `decisions_job` ON `decisions` (`job_id`,`id`);--> statement-breakpoint
CREATE TABLE `export_rows` (
	`export_id` integer NOT NULL,
	`job_id` integer NOT NULL,
	`record_id` integer NOT NULL,
	`email` text NOT NULL,
	PRIMARY KEY(`export_id`, `record_id`)
);
--> statement-breakpoint
CREATE INDEX `export_rows_record` ON `export_rows` (`record_id`);--> statement-breakpoint
CREATE TABLE `exports` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`job_id` integer NOT NULL,
	`at` integer NOT NULL,
	`layout` text NOT NULL,
	`state` text NOT NULL,
	`rows` integer DEFAULT 0 NOT NULL,
	`files` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `facts` (
	`kind` text NOT NULL,
	`question` text NOT NULL,
	`who` text NOT NULL,
	`answer` text NOT NULL,
	`asked_at` integer NOT NULL,
	PRIMARY KEY(`kind`, `question`, `who`)
);
--> statement-breakpoint
CREATE TABLE `jobs` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`name` text NOT NULL,
	`folder` text NOT NULL,
	`note` text NOT NULL,
	`target_valid` integer NOT NULL,
	`budget_cents` integer NOT NULL,
	`created_at` integer NOT NULL,
	`steps` text NOT NULL,
	`outcome` integer DEFAULT 0 NOT NULL,
	`version` integer DEFAULT 0 NOT NULL,
	`weights` text,
	`summary` text
);
--> statement-breakpoint
CREATE TABLE `mappings` (
	`shape` text PRIMARY KEY NOT NULL,
	`columns` text NOT NULL,
	`at` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `outcomes` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`job_id` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `pairs` (
	`outcome` integer NOT NULL,
	`a` integer NOT NULL,
	`b` integer NOT NULL,
	`chance` real NOT NULL,
	`merged` integer NOT NULL,
	PRIMARY KEY(`outcome`, `a`, `b`)
);
--> statement-breakpoint
CREATE INDEX `pairs_merged` ON `pairs` (`outcome`,`merged`,`chance`);--> statement-breakpoint
CREATE TABLE `pick_lists` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`name` text NOT NULL,
	`about` text NOT NULL,
	`created_at` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `picks` (
	`list_id` integer NOT NULL,
	`row_id` text NOT NULL,
	`row` text NOT NULL,
	`at` integer NOT NULL,
	PRIMARY KEY(`list_id`, `row_id`)
);
--> statement-breakpoint
CREATE INDEX `picks_row` ON `picks` (`row_id`);--> statement-breakpoint
CREATE TABLE `pulled` (
	`pull_id` integer NOT NULL,
	`row_id` text NOT NULL,
	`company` text DEFAULT '' NOT NULL,
	`taken` integer DEFAULT true NOT NULL,
	`at` integer NOT NULL,
	PRIMARY KEY(`pull_id`, `row_id`)
);
--> statement-breakpoint
CREATE INDEX `pulled_row` ON `pulled` (`row_id`);--> statement-breakpoint
CREATE INDEX `pulled_company` ON `pulled` (`company`);--> statement-breakpoint
CREATE INDEX `pulled_at` ON `pulled` (`at`);--> statement-breakpoint
CREATE TABLE `pulls` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`search_id` integer NOT NULL,
	`batch` integer NOT NULL,
	`batch_id` integer NOT NULL,
	`job_id` integer NOT NULL,
	`source_id` integer NOT NULL,
	`run_id` integer NOT NULL,
	`search` text NOT NULL,
	`kept` text DEFAULT '{}' NOT NULL,
	`per_company` integer DEFAULT 0 NOT NULL,
	`standing` integer NOT NULL,
	`started_at` integer NOT NULL,
	`ended_at` integer,
	`round` integer DEFAULT 1 NOT NULL,
	`page` integer DEFAULT 1 NOT NULL,
	`round_new` integer DEFAULT 0 NOT NULL,
	`promised` integer DEFAULT 0 NOT NULL,
	`came` integer DEFAULT 0 NOT NULL,
	`fresh` integer DEFAULT 0 NOT NULL,
	`yours` integer DEFAULT 0 NOT NULL,
	`full` integer DEFAULT 0 NOT NULL
);
--> statement-breakpoint
CREATE INDEX `pulls_search` ON `pulls` (`search_id`);--> statement-breakpoint
CREATE INDEX `pulls_job` ON `pulls` (`job_id`);--> statement-breakpoint
CREATE TABLE `records` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`source_id` integer NOT NULL,
	`line` integer NOT NULL,
	`cells` text NOT NULL
);
--> statement-breakpoint
CREATE INDEX `records_source` ON `records` (`source_id`);--> statement-breakpoint
CREATE TABLE `row_issues` (
	`source_id` integer NOT NULL,
	`line` integer NOT NULL,
	`code` text NOT NULL,
	`kept` integer NOT NULL,
	`field` text NOT NULL,
	`input` text NOT NULL
);
--> statement-breakpoint
CREATE INDEX `row_issues_source` ON `row_issues` (`source_id`);--> statement-breakpoint
CREATE TABLE `runs` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`job_id` integer NOT NULL,
	`kind` text NOT NULL,
	`input` text NOT NULL,
	`state` text NOT NULL,
	`done` integer DEFAULT 0 NOT NULL,
	`total` integer DEFAULT 0 NOT NULL,
	`message` text DEFAULT '' NOT NULL,
	`created_at` integer NOT NULL,
	`ended_at` integer,
	`not_before` integer
);
--> statement-breakpoint
CREATE INDEX `runs_state` ON `runs` (`state`);--> statement-breakpoint
CREATE TABLE `searches` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`name` text NOT NULL,
	`folder` text NOT NULL,
	`job_id` integer,
	`search` text NOT NULL,
	`created_at` integer NOT NULL,
	`split` text,
	`per_company` integer DEFAULT 0 NOT NULL,
	`standing` text,
	`next_at` integer,
	`standing_since` integer DEFAULT 0 NOT NULL
);
--> statement-breakpoint
CREATE TABLE `settings` (
	`key` text PRIMARY KEY NOT NULL,
	`value` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `sources` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`job_id` integer NOT NULL,
	`name` text NOT NULL,
	`format` text NOT NULL,
	`columns` text NOT NULL,
	`file` text NOT NULL,
	`created_at` integer NOT NULL,
	`rows_read` integer DEFAULT 0 NOT NULL,
	`complete` integer DEFAULT false NOT NULL
);
--> statement-breakpoint
CREATE INDEX `sources_job` ON `sources` (`job_id`);--> statement-breakpoint
CREATE TABLE `suppressions` (
	`value` text PRIMARY KEY NOT NULL,
	`kind` text NOT NULL,
	`at` integer NOT NULL
);
