DROP INDEX `charges_fact`;--> statement-breakpoint
CREATE UNIQUE INDEX `charges_fact` ON `charges` (`who`,`question`,`at`);--> statement-breakpoint
DROP INDEX `charges_job`;--> statement-breakpoint
CREATE INDEX `charges_job` ON `charges` (`job_id`,`cents`);--> statement-breakpoint
CREATE INDEX `charges_who` ON `charges` (`who`,`at`,`cents`);--> statement-breakpoint
UPDATE `charges` SET `question` = finder_key(`question`) WHERE `question` IN (SELECT `question` FROM `facts` WHERE `kind` = 'finder') AND `refund_of` IS NULL;--> statement-breakpoint
UPDATE `facts` SET `question` = finder_key(`question`) WHERE `kind` = 'finder';
