ALTER TABLE `detectors` ADD `reads_json` text DEFAULT '["oxygen","flammable"]' NOT NULL;--> statement-breakpoint
ALTER TABLE `gear` ADD `zeroed_at_ms` integer;--> statement-breakpoint
ALTER TABLE `gear` ADD `sheet_json` text;