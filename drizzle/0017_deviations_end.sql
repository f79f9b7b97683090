ALTER TABLE `deviations` ADD `until_ms` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
UPDATE `deviations` SET `until_ms` = (SELECT `window_to_ms` FROM `jobs` WHERE `jobs`.`id` = `deviations`.`job_id`);
