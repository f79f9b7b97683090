CREATE TABLE `procedure_versions` (
	`id` text PRIMARY KEY NOT NULL,
	`procedure_id` text NOT NULL,
	`version` integer NOT NULL,
	`state` text NOT NULL,
	`content_json` text NOT NULL,
	`job_number` text NOT NULL,
	`written_by` text NOT NULL,
	`written_at_ms` integer NOT NULL,
	`signatures_json` text NOT NULL,
	`inspections_json` text NOT NULL,
	FOREIGN KEY (`procedure_id`) REFERENCES `procedures`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`written_by`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `procedure_versions_number` ON `procedure_versions` (`procedure_id`,`version`);--> statement-breakpoint
CREATE TABLE `procedures` (
	`id` text PRIMARY KEY NOT NULL,
	`number` text NOT NULL,
	`title` text NOT NULL,
	`equipment` text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `procedures_number_unique` ON `procedures` (`number`);--> statement-breakpoint
ALTER TABLE `jobs` ADD `procedure_number` text;--> statement-breakpoint
ALTER TABLE `jobs` ADD `procedure_version` integer;