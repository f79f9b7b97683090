CREATE TABLE `handovers` (
	`id` text PRIMARY KEY NOT NULL,
	`number` text NOT NULL,
	`at_ms` integer NOT NULL,
	`going_id` text NOT NULL,
	`coming_id` text NOT NULL,
	`items_json` text NOT NULL,
	`asked_json` text NOT NULL,
	`remarks` text NOT NULL,
	FOREIGN KEY (`going_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`coming_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `handovers_number_unique` ON `handovers` (`number`);--> statement-breakpoint
CREATE INDEX `handovers_at` ON `handovers` (`at_ms`);