CREATE TABLE `conflict_decisions` (
	`id` text PRIMARY KEY NOT NULL,
	`conflict` text NOT NULL,
	`from_ms` integer NOT NULL,
	`to_ms` integer NOT NULL,
	`reason` text NOT NULL,
	`decided_by` text NOT NULL,
	`decided_at_ms` integer NOT NULL,
	FOREIGN KEY (`decided_by`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `conflict_decisions_to` ON `conflict_decisions` (`to_ms`);--> statement-breakpoint
CREATE TABLE `musters` (
	`id` text PRIMARY KEY NOT NULL,
	`number` text NOT NULL,
	`area` text NOT NULL,
	`reason` text NOT NULL,
	`opened_by` text NOT NULL,
	`opened_at_ms` integer NOT NULL,
	`people_json` text NOT NULL,
	`seen_json` text NOT NULL,
	`closed_by` text,
	`closed_at_ms` integer,
	FOREIGN KEY (`opened_by`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`closed_by`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `musters_number_unique` ON `musters` (`number`);--> statement-breakpoint
CREATE INDEX `musters_closed` ON `musters` (`closed_at_ms`);--> statement-breakpoint
CREATE INDEX `ledger_recorded` ON `ledger` (`recorded_at_ms`);--> statement-breakpoint
CREATE INDEX `permits_valid_to` ON `permits` (`valid_to_ms`);