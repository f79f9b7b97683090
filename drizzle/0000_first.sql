CREATE TABLE `box_isolations` (
	`box_id` text NOT NULL,
	`isolation_id` text NOT NULL,
	FOREIGN KEY (`box_id`) REFERENCES `lock_boxes`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`isolation_id`) REFERENCES `isolations`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `box_isolations_pair` ON `box_isolations` (`box_id`,`isolation_id`);--> statement-breakpoint
CREATE TABLE `failed_attempts` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`subject` text NOT NULL,
	`at_ms` integer NOT NULL
);
--> statement-breakpoint
CREATE INDEX `failed_attempts_subject` ON `failed_attempts` (`subject`,`at_ms`);--> statement-breakpoint
CREATE TABLE `holds` (
	`id` text PRIMARY KEY NOT NULL,
	`isolation_id` text NOT NULL,
	`item_id` text NOT NULL,
	`lock` text NOT NULL,
	`locked_by` text NOT NULL,
	`locked_at_ms` integer NOT NULL,
	`lifted_by` text,
	`lifted_at_ms` integer,
	FOREIGN KEY (`isolation_id`) REFERENCES `isolations`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`item_id`) REFERENCES `items`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`locked_by`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`lifted_by`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `holds_lock` ON `holds` (`lock`);--> statement-breakpoint
CREATE INDEX `holds_isolation` ON `holds` (`isolation_id`);--> statement-breakpoint
CREATE TABLE `isolations` (
	`id` text PRIMARY KEY NOT NULL,
	`number` text NOT NULL,
	`state` text NOT NULL,
	`plan_json` text NOT NULL,
	`plant_revision` integer NOT NULL,
	`rule_profile` text NOT NULL,
	`engine_version` text NOT NULL,
	`inputs_json` text NOT NULL,
	`approved_by` text NOT NULL,
	`approved_at_ms` integer NOT NULL,
	FOREIGN KEY (`approved_by`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `isolations_number_unique` ON `isolations` (`number`);--> statement-breakpoint
CREATE TABLE `items` (
	`id` text PRIMARY KEY NOT NULL,
	`tag` text NOT NULL,
	`name` text NOT NULL,
	`kind` text NOT NULL,
	`area` text NOT NULL,
	`part` text NOT NULL,
	`item_json` text NOT NULL,
	`present` integer DEFAULT true NOT NULL,
	`revision` integer NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `items_tag_unique` ON `items` (`tag`);--> statement-breakpoint
CREATE INDEX `items_area` ON `items` (`area`);--> statement-breakpoint
CREATE INDEX `items_kind` ON `items` (`kind`);--> statement-breakpoint
CREATE TABLE `job_isolations` (
	`job_id` text NOT NULL,
	`isolation_id` text NOT NULL,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`isolation_id`) REFERENCES `isolations`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `job_isolations_pair` ON `job_isolations` (`job_id`,`isolation_id`);--> statement-breakpoint
CREATE TABLE `jobs` (
	`id` text PRIMARY KEY NOT NULL,
	`number` text NOT NULL,
	`title` text NOT NULL,
	`work` text NOT NULL,
	`job_json` text NOT NULL,
	`window_from_ms` integer NOT NULL,
	`window_to_ms` integer NOT NULL,
	`crew_json` text NOT NULL,
	`holder_id` text NOT NULL,
	`asked_by` text NOT NULL,
	`asked_at_ms` integer NOT NULL,
	`state` text NOT NULL,
	FOREIGN KEY (`holder_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`asked_by`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `jobs_number_unique` ON `jobs` (`number`);--> statement-breakpoint
CREATE TABLE `ledger` (
	`seq` integer PRIMARY KEY NOT NULL,
	`act_id` text NOT NULL,
	`body_version` integer NOT NULL,
	`type` text NOT NULL,
	`outcome` text NOT NULL,
	`by_person` text NOT NULL,
	`subject` text NOT NULL,
	`done_at_ms` integer NOT NULL,
	`recorded_at_ms` integer NOT NULL,
	`transcribed_by` text,
	`corrects` integer,
	`body` text NOT NULL,
	`previous_hash` text NOT NULL,
	`hash` text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `ledger_act_id_unique` ON `ledger` (`act_id`);--> statement-breakpoint
CREATE INDEX `ledger_subject` ON `ledger` (`subject`);--> statement-breakpoint
CREATE INDEX `ledger_person` ON `ledger` (`by_person`);--> statement-breakpoint
CREATE TABLE `lock_boxes` (
	`id` text PRIMARY KEY NOT NULL,
	`number` text NOT NULL,
	`state` text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `lock_boxes_number_unique` ON `lock_boxes` (`number`);--> statement-breakpoint
CREATE TABLE `people` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`sign_in` text NOT NULL,
	`roles_json` text NOT NULL,
	`competences_json` text NOT NULL,
	`password_hash` text NOT NULL,
	`pin_hash` text NOT NULL,
	`active` integer DEFAULT true NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `people_sign_in_unique` ON `people` (`sign_in`);--> statement-breakpoint
CREATE TABLE `permit_isolations` (
	`permit_id` text NOT NULL,
	`isolation_id` text NOT NULL,
	FOREIGN KEY (`permit_id`) REFERENCES `permits`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`isolation_id`) REFERENCES `isolations`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `permit_isolations_pair` ON `permit_isolations` (`permit_id`,`isolation_id`);--> statement-breakpoint
CREATE TABLE `permits` (
	`id` text PRIMARY KEY NOT NULL,
	`number` text NOT NULL,
	`kind` text NOT NULL,
	`job_id` text NOT NULL,
	`state` text NOT NULL,
	`words` text NOT NULL,
	`hazards` text NOT NULL,
	`precautions` text NOT NULL,
	`holder_id` text NOT NULL,
	`issuer_id` text,
	`closed_by` text,
	`valid_from_ms` integer NOT NULL,
	`valid_to_ms` integer NOT NULL,
	`plant_revision` integer NOT NULL,
	`rule_profile` text NOT NULL,
	`engine_version` text NOT NULL,
	`drafted_by` text NOT NULL,
	`drafted_at_ms` integer NOT NULL,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`holder_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`issuer_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`closed_by`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`drafted_by`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `permits_number_unique` ON `permits` (`number`);--> statement-breakpoint
CREATE INDEX `permits_job` ON `permits` (`job_id`);--> statement-breakpoint
CREATE INDEX `permits_state` ON `permits` (`state`);--> statement-breakpoint
CREATE TABLE `personal_locks` (
	`id` text PRIMARY KEY NOT NULL,
	`box_id` text NOT NULL,
	`permit_id` text NOT NULL,
	`person_id` text NOT NULL,
	`lock` text NOT NULL,
	`on_at_ms` integer NOT NULL,
	`off_at_ms` integer,
	FOREIGN KEY (`box_id`) REFERENCES `lock_boxes`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`permit_id`) REFERENCES `permits`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`person_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `personal_locks_box` ON `personal_locks` (`box_id`);--> statement-breakpoint
CREATE INDEX `personal_locks_lock` ON `personal_locks` (`lock`);--> statement-breakpoint
CREATE TABLE `plant_revisions` (
	`revision` integer PRIMARY KEY NOT NULL,
	`imported_at_ms` integer NOT NULL,
	`imported_by` text NOT NULL,
	`file_names` text NOT NULL,
	`item_count` integer NOT NULL,
	`link_count` integer NOT NULL,
	`content_hash` text NOT NULL,
	`plant_json` text NOT NULL,
	FOREIGN KEY (`imported_by`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `sessions` (
	`token_hash` text PRIMARY KEY NOT NULL,
	`person_id` text NOT NULL,
	`created_at_ms` integer NOT NULL,
	`expires_at_ms` integer NOT NULL,
	FOREIGN KEY (`person_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `sessions_person` ON `sessions` (`person_id`);--> statement-breakpoint
CREATE TABLE `steps` (
	`isolation_id` text NOT NULL,
	`step_id` text NOT NULL,
	`position` integer NOT NULL,
	`step_json` text NOT NULL,
	`done_by` text,
	`done_at_ms` integer,
	`recorded_at_ms` integer,
	`lock` text,
	`reading` text,
	`skipped` integer DEFAULT false NOT NULL,
	FOREIGN KEY (`isolation_id`) REFERENCES `isolations`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`done_by`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `steps_id` ON `steps` (`isolation_id`,`step_id`);