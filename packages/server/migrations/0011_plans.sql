ALTER TABLE `charges` ADD `credits` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
CREATE INDEX `charges_credits` ON `charges` (`who`,`at`,`credits`) WHERE credits > 0;--> statement-breakpoint
CREATE INDEX `charges_sums` ON `charges` (`at`,`who`,`job_id`,`cents`,`refund_of`);--> statement-breakpoint
CREATE TABLE `plan_months` (
	`who` text NOT NULL,
	`month` text NOT NULL,
	`credits` integer NOT NULL,
	`cents` integer NOT NULL,
	`at` integer NOT NULL,
	PRIMARY KEY(`who`, `month`)
);
--> statement-breakpoint
CREATE TABLE `maybe_charged` (
	`who` text NOT NULL,
	`question` text NOT NULL,
	`job_id` integer NOT NULL,
	`step` text NOT NULL,
	`contact` integer NOT NULL,
	`cents` integer NOT NULL,
	PRIMARY KEY(`who`, `question`)
);
--> statement-breakpoint
CREATE TABLE `service_days` (
	`who` text NOT NULL,
	`day` text NOT NULL,
	`answers` integer NOT NULL,
	`took_ms` integer NOT NULL,
	`outages` integer NOT NULL,
	`last_outage` text NOT NULL,
	PRIMARY KEY(`who`, `day`)
);
