CREATE TABLE `forced_removals` (
	`id` text PRIMARY KEY NOT NULL,
	`permit_id` text NOT NULL,
	`owner_id` text NOT NULL,
	`lock` text NOT NULL,
	`state` text NOT NULL,
	`removal_json` text NOT NULL,
	FOREIGN KEY (`permit_id`) REFERENCES `permits`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`owner_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `forced_removals_owner` ON `forced_removals` (`owner_id`,`state`);--> statement-breakpoint
CREATE INDEX `forced_removals_permit` ON `forced_removals` (`permit_id`);