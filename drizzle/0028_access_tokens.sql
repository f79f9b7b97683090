CREATE TABLE `access_tokens` (
	`number` text PRIMARY KEY NOT NULL,
	`token_hash` text NOT NULL,
	`owner_id` text NOT NULL,
	`name` text NOT NULL,
	`rights_json` text NOT NULL,
	`acts_json` text NOT NULL,
	`made_at_ms` integer NOT NULL,
	`until_ms` integer NOT NULL,
	`revoked_at_ms` integer,
	FOREIGN KEY (`owner_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `access_tokens_token_hash_unique` ON `access_tokens` (`token_hash`);--> statement-breakpoint
CREATE INDEX `access_tokens_owner` ON `access_tokens` (`owner_id`);