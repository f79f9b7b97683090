CREATE TABLE `figures` (
	`id` text PRIMARY KEY NOT NULL,
	`job_id` text,
	`permit_id` text,
	`calculator` text NOT NULL,
	`inputs_json` text NOT NULL,
	`calculation_json` text NOT NULL,
	`note` text NOT NULL,
	`engine_version` text NOT NULL,
	`attached_by` text NOT NULL,
	`attached_at_ms` integer NOT NULL,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`permit_id`) REFERENCES `permits`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`attached_by`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `figures_job` ON `figures` (`job_id`);--> statement-breakpoint
CREATE INDEX `figures_permit` ON `figures` (`permit_id`);--> statement-breakpoint
CREATE TABLE `stock` (
	`thing` text NOT NULL,
	`size` text NOT NULL,
	`count` integer NOT NULL,
	`counted_by` text NOT NULL,
	`counted_at_ms` integer NOT NULL,
	FOREIGN KEY (`counted_by`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `stock_thing_size` ON `stock` (`thing`,`size`);--> statement-breakpoint
ALTER TABLE `jobs` ADD `setup_json` text DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE `people` ADD `units` text DEFAULT 'metric' NOT NULL;