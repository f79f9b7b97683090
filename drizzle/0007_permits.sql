CREATE TABLE `detectors` (
	`id` text PRIMARY KEY NOT NULL,
	`token_hash` text NOT NULL,
	`kind` text NOT NULL,
	`permit` text,
	`place` text DEFAULT '' NOT NULL,
	`posted_at_ms` integer,
	`last_at_ms` integer,
	`last_reading_json` text
);
--> statement-breakpoint
CREATE UNIQUE INDEX `detectors_token_hash_unique` ON `detectors` (`token_hash`);--> statement-breakpoint
CREATE TABLE `permit_log` (
	`permit_id` text NOT NULL,
	`position` integer NOT NULL,
	`at_ms` integer NOT NULL,
	`entry_json` text NOT NULL,
	FOREIGN KEY (`permit_id`) REFERENCES `permits`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `permit_log_position` ON `permit_log` (`permit_id`,`position`);--> statement-breakpoint
ALTER TABLE `jobs` ADD `hazards_json` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `permits` ADD `details_json` text DEFAULT '{"kind":"general"}' NOT NULL;--> statement-breakpoint
ALTER TABLE `permits` ADD `previous` text;--> statement-breakpoint
CREATE TRIGGER `permit_log_no_update` BEFORE UPDATE ON `permit_log` BEGIN SELECT RAISE(ABORT, 'the log of a permit is append-only'); END;--> statement-breakpoint
CREATE TRIGGER `permit_log_no_delete` BEFORE DELETE ON `permit_log` BEGIN SELECT RAISE(ABORT, 'the log of a permit is append-only'); END;--> statement-breakpoint
INSERT INTO `permit_log` (`permit_id`, `position`, `at_ms`, `entry_json`)
SELECT `id`, 0, `valid_from_ms`, json_object('type', 'signed', 'act', 'accept', 'at_ms', `valid_from_ms`, 'by', `holder_id`)
FROM `permits` WHERE `state` IN ('live', 'handed back', 'closed');--> statement-breakpoint
UPDATE `permits` SET `state` = 'work done' WHERE `state` = 'handed back';
