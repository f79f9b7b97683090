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
CREATE INDEX `ledger_recorded` ON `ledger` (`recorded_at_ms`);