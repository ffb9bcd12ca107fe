CREATE TABLE `suppressed` (
	`key` text PRIMARY KEY NOT NULL,
	`kind` text NOT NULL,
	`value` text NOT NULL,
	`why` text NOT NULL,
	`source` text NOT NULL,
	`until` integer,
	`at` integer NOT NULL
);
--> statement-breakpoint
INSERT INTO `suppressed` SELECT `kind` || ':' || `value`, `kind`, `value`, 'asked not to be', '', NULL, `at` FROM `suppressions`;
--> statement-breakpoint
DROP TABLE `suppressions`;
