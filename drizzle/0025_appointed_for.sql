ALTER TABLE `people` ADD `induction_json` text;--> statement-breakpoint
ALTER TABLE `people` ADD `appointed_for_json` text DEFAULT '{"areas":[],"shifts":[]}' NOT NULL;