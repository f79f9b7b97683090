CREATE TABLE `isolation_reviews` (
	`id` text PRIMARY KEY NOT NULL,
	`isolation_id` text NOT NULL,
	`reason` text NOT NULL,
	`reviewed_by` text NOT NULL,
	`reviewed_at_ms` integer NOT NULL,
	`next_at_ms` integer NOT NULL,
	FOREIGN KEY (`isolation_id`) REFERENCES `isolations`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`reviewed_by`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `isolation_reviews_isolation` ON `isolation_reviews` (`isolation_id`);