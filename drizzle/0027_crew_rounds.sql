CREATE TABLE `crew_rounds` (
	`id` text PRIMARY KEY NOT NULL,
	`number` text NOT NULL,
	`permit_id` text NOT NULL,
	`lead_id` text NOT NULL,
	`begun_at_ms` integer NOT NULL,
	`last_at_ms` integer NOT NULL,
	`ended_at_ms` integer,
	FOREIGN KEY (`permit_id`) REFERENCES `permits`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`lead_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `crew_rounds_number_unique` ON `crew_rounds` (`number`);--> statement-breakpoint
CREATE INDEX `crew_rounds_open` ON `crew_rounds` (`permit_id`) WHERE "crew_rounds"."ended_at_ms" IS NULL;--> statement-breakpoint
ALTER TABLE `sessions` ADD `crew_round` text;