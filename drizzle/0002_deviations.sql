CREATE TABLE `deviations` (
	`id` text PRIMARY KEY NOT NULL,
	`job_id` text NOT NULL,
	`way` text NOT NULL,
	`required_grade` text NOT NULL,
	`accepted_grade` text NOT NULL,
	`accepted_depth` integer NOT NULL,
	`measures_json` text NOT NULL,
	`reason` text NOT NULL,
	`plant_revision` integer NOT NULL,
	`accepted_by` text NOT NULL,
	`accepted_at_ms` integer NOT NULL,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`accepted_by`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `deviations_job` ON `deviations` (`job_id`);