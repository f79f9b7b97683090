-- Numbers of locks as they are kept from now on: capitals, one kind of dash, single spaces. Where two locks that hang now
-- turn out to have one number, all but the first get a mark after it, so that both are seen and somebody settles it.
UPDATE `holds` SET `lock` = replace(replace(replace(replace(replace(replace(replace(replace(replace(replace(replace(replace(upper(trim(`lock`)), char(8208), '-'), char(8209), '-'), char(8210), '-'), char(8211), '-'), char(8212), '-'), char(8722), '-'), char(160), ' '), '  ', ' '), '  ', ' '), '  ', ' '), ' -', '-'), '- ', '-');
--> statement-breakpoint
UPDATE `personal_locks` SET `lock` = replace(replace(replace(replace(replace(replace(replace(replace(replace(replace(replace(replace(upper(trim(`lock`)), char(8208), '-'), char(8209), '-'), char(8210), '-'), char(8211), '-'), char(8212), '-'), char(8722), '-'), char(160), ' '), '  ', ' '), '  ', ' '), '  ', ' '), ' -', '-'), '- ', '-');
--> statement-breakpoint
UPDATE `standing_locks` SET `lock` = replace(replace(replace(replace(replace(replace(replace(replace(replace(replace(replace(replace(upper(trim(`lock`)), char(8208), '-'), char(8209), '-'), char(8210), '-'), char(8211), '-'), char(8212), '-'), char(8722), '-'), char(160), ' '), '  ', ' '), '  ', ' '), '  ', ' '), ' -', '-'), '- ', '-');
--> statement-breakpoint
UPDATE `steps` SET `lock` = replace(replace(replace(replace(replace(replace(replace(replace(replace(replace(replace(replace(upper(trim(`lock`)), char(8208), '-'), char(8209), '-'), char(8210), '-'), char(8211), '-'), char(8212), '-'), char(8722), '-'), char(160), ' '), '  ', ' '), '  ', ' '), '  ', ' '), ' -', '-'), '- ', '-') WHERE `lock` IS NOT NULL;
--> statement-breakpoint
UPDATE `holds` SET `lock` = `lock` || ' (TWICE ' || substr(`id`, 1, 4) || ')' WHERE `lifted_at_ms` IS NULL AND EXISTS (
  SELECT 1 FROM `holds` AS `first` WHERE `first`.`lifted_at_ms` IS NULL AND `first`.`lock` = `holds`.`lock` AND `first`.rowid < `holds`.rowid
);
--> statement-breakpoint
UPDATE `personal_locks` SET `lock` = `lock` || ' (TWICE ' || substr(`id`, 1, 4) || ')' WHERE `off_at_ms` IS NULL AND EXISTS (
  SELECT 1 FROM `personal_locks` AS `first` WHERE `first`.`off_at_ms` IS NULL AND `first`.`lock` = `personal_locks`.`lock` AND `first`.`box_id` = `personal_locks`.`box_id` AND `first`.`point` = `personal_locks`.`point` AND `first`.rowid < `personal_locks`.rowid
);
--> statement-breakpoint
UPDATE `standing_locks` SET `lock` = `lock` || ' (TWICE ' || substr(`id`, 1, 4) || ')' WHERE `off_at_ms` IS NULL AND EXISTS (
  SELECT 1 FROM `standing_locks` AS `first` WHERE `first`.`off_at_ms` IS NULL AND `first`.`lock` = `standing_locks`.`lock` AND `first`.rowid < `standing_locks`.rowid
);
--> statement-breakpoint
CREATE UNIQUE INDEX `holds_lock_hangs` ON `holds` (`lock`) WHERE "holds"."lifted_at_ms" is null;--> statement-breakpoint
CREATE UNIQUE INDEX `personal_locks_hangs` ON `personal_locks` (`lock`,`box_id`,`point`) WHERE "personal_locks"."off_at_ms" is null;--> statement-breakpoint
CREATE UNIQUE INDEX `standing_locks_hangs` ON `standing_locks` (`lock`) WHERE "standing_locks"."off_at_ms" is null;