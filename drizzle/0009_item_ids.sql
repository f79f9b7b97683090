DROP INDEX `items_area`;--> statement-breakpoint
DROP INDEX `items_kind`;--> statement-breakpoint
ALTER TABLE `items` DROP COLUMN `name`;--> statement-breakpoint
ALTER TABLE `items` DROP COLUMN `kind`;--> statement-breakpoint
ALTER TABLE `items` DROP COLUMN `area`;--> statement-breakpoint
ALTER TABLE `items` DROP COLUMN `part`;--> statement-breakpoint
ALTER TABLE `items` DROP COLUMN `item_json`;--> statement-breakpoint
ALTER TABLE `items` DROP COLUMN `present`;--> statement-breakpoint
ALTER TABLE `items` DROP COLUMN `revision`;