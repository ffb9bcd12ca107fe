UPDATE `settings` SET `value` = json_set(`value`, '$.currency', 'GBP')
  WHERE `key` = 'settings' AND json_extract(`value`, '$.currency') NOT GLOB '[A-Z][A-Z][A-Z]';--> statement-breakpoint
UPDATE `settings` SET `value` = json_set(`value`, '$.pace.fromMinute', 0, '$.pace.toMinute', 1440)
  WHERE `key` = 'settings' AND json_extract(`value`, '$.pace.fromMinute') = json_extract(`value`, '$.pace.toMinute');
--> statement-breakpoint
CREATE INDEX `decisions_source` ON `decisions` (json_extract(`body`, '$.sourceId')) WHERE json_extract(`body`, '$.kind') = 'bring-in';--> statement-breakpoint
ALTER TABLE `jobs` ADD `client` text NOT NULL DEFAULT '';--> statement-breakpoint
ALTER TABLE `runs` ADD `seen_at` integer;--> statement-breakpoint
UPDATE `runs` SET `seen_at` = `ended_at` WHERE `state` = 'failed';
