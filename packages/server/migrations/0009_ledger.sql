ALTER TABLE `charges` ADD `contact` integer;--> statement-breakpoint
ALTER TABLE `charges` ADD `refund_of` integer;--> statement-breakpoint
CREATE INDEX `charges_at` ON `charges` (`at`);--> statement-breakpoint
CREATE INDEX `charges_refund` ON `charges` (`refund_of`);
