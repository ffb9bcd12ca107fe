DROP TABLE `contacts`;--> statement-breakpoint
DROP TABLE `pairs`;