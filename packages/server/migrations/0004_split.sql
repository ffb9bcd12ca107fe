CREATE TABLE `split_answers` (
	`run_id` integer NOT NULL,
	`question` text NOT NULL,
	`answer` text NOT NULL,
	PRIMARY KEY(`run_id`, `question`)
) WITHOUT ROWID;
--> statement-breakpoint
ALTER TABLE `pulls` ADD `first` integer NOT NULL DEFAULT 0;--> statement-breakpoint
ALTER TABLE `runs` ADD `started_at` integer;
--> statement-breakpoint
ALTER TABLE `searches` ADD `failed` text;
