ALTER TABLE `sessions` ADD `seen_at_ms` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `gear` ADD `withdrawn_by` text REFERENCES people(id);--> statement-breakpoint
UPDATE `sessions` SET `seen_at_ms` = `created_at_ms`;
