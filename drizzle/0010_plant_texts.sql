CREATE TABLE `plant_texts` (
	`hash` text NOT NULL,
	`part` integer NOT NULL,
	`text` text NOT NULL,
	`stored_at_ms` integer NOT NULL,
	PRIMARY KEY(`hash`, `part`)
);
--> statement-breakpoint
INSERT INTO `plant_texts` (`hash`, `part`, `text`, `stored_at_ms`)
SELECT `content_hash`, 0, `plant_json`, min(`imported_at_ms`) FROM `plant_revisions` GROUP BY `content_hash`;--> statement-breakpoint
ALTER TABLE `plant_revisions` DROP COLUMN `plant_json`;