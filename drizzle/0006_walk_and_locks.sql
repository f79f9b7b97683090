CREATE TABLE `earths_on` (
	`id` text PRIMARY KEY NOT NULL,
	`isolation_id` text NOT NULL,
	`number` text NOT NULL,
	`face` text NOT NULL,
	`place` text NOT NULL,
	`on_at_ms` integer NOT NULL,
	`off_at_ms` integer,
	FOREIGN KEY (`isolation_id`) REFERENCES `isolations`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `earths_on_number` ON `earths_on` (`number`);--> statement-breakpoint
CREATE INDEX `earths_on_isolation` ON `earths_on` (`isolation_id`);--> statement-breakpoint
CREATE TABLE `exchanges` (
	`id` text PRIMARY KEY NOT NULL,
	`job_id` text NOT NULL,
	`firm` text NOT NULL,
	`ours` text NOT NULL,
	`theirs` text NOT NULL,
	`lead_id` text NOT NULL,
	`by_person` text NOT NULL,
	`at_ms` integer NOT NULL,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`lead_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`by_person`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `exchanges_job` ON `exchanges` (`job_id`);--> statement-breakpoint
CREATE TABLE `gear` (
	`id` text PRIMARY KEY NOT NULL,
	`kind` text NOT NULL,
	`number` text NOT NULL,
	`owner_id` text,
	`key` text,
	`in_date_until_ms` integer,
	`rating_v` real,
	`error` real,
	`withdrawn` integer DEFAULT false NOT NULL,
	`with_job` text,
	FOREIGN KEY (`owner_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `gear_number` ON `gear` (`kind`,`number`);--> statement-breakpoint
CREATE TABLE `photos` (
	`id` text PRIMARY KEY NOT NULL,
	`taken_by` text NOT NULL,
	`stored_at_ms` integer NOT NULL,
	`sha256` text NOT NULL,
	`width` integer NOT NULL,
	`height` integer NOT NULL,
	`jpeg` blob NOT NULL,
	FOREIGN KEY (`taken_by`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `photos_hash` ON `photos` (`sha256`);--> statement-breakpoint
CREATE TABLE `standing_locks` (
	`id` text PRIMARY KEY NOT NULL,
	`box_id` text NOT NULL,
	`role` text NOT NULL,
	`person_id` text NOT NULL,
	`lock` text NOT NULL,
	`on_at_ms` integer NOT NULL,
	`off_at_ms` integer,
	FOREIGN KEY (`box_id`) REFERENCES `lock_boxes`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`person_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `standing_locks_box` ON `standing_locks` (`box_id`);--> statement-breakpoint
CREATE INDEX `standing_locks_lock` ON `standing_locks` (`lock`);--> statement-breakpoint
CREATE TABLE `temporary_restores` (
	`id` text PRIMARY KEY NOT NULL,
	`number` text NOT NULL,
	`isolation_id` text NOT NULL,
	`state` text NOT NULL,
	`purpose` text NOT NULL,
	`lift_json` text NOT NULL,
	`affected_json` text NOT NULL,
	`asked_by` text NOT NULL,
	`asked_at_ms` integer NOT NULL,
	`started_at_ms` integer,
	`ended_at_ms` integer,
	FOREIGN KEY (`isolation_id`) REFERENCES `isolations`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`asked_by`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `temporary_restores_number_unique` ON `temporary_restores` (`number`);--> statement-breakpoint
CREATE INDEX `temporary_restores_isolation` ON `temporary_restores` (`isolation_id`);--> statement-breakpoint
ALTER TABLE `holds` ADD `key_at` text DEFAULT 'hand' NOT NULL;--> statement-breakpoint
ALTER TABLE `holds` ADD `key_by` text REFERENCES people(id);--> statement-breakpoint
ALTER TABLE `people` ADD `firm` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `personal_locks` ADD `point` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `steps` ADD `evidence_json` text;--> statement-breakpoint
ALTER TABLE `steps` ADD `stuck_json` text;