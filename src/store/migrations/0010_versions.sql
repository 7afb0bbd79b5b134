CREATE TABLE `versions` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`study_id` text NOT NULL,
	`number` integer NOT NULL,
	`frozen` integer NOT NULL,
	`document` text NOT NULL,
	`checksum` text NOT NULL,
	`revision` integer NOT NULL,
	`note` text NOT NULL,
	`author` text NOT NULL,
	`at` integer NOT NULL,
	`gate` text,
	`reason` text,
	FOREIGN KEY (`study_id`) REFERENCES `studies`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `versions_number` ON `versions` (`study_id`,`number`);--> statement-breakpoint
ALTER TABLE `cases` ADD `revision` integer;--> statement-breakpoint
ALTER TABLE `comments` ADD `revision` integer;--> statement-breakpoint
ALTER TABLE `datasets` ADD `revision` integer;--> statement-breakpoint
ALTER TABLE `verdicts` ADD `revision` integer;--> statement-breakpoint
CREATE TRIGGER `versions_never_change` BEFORE UPDATE ON `versions`
BEGIN
	SELECT RAISE(ABORT, 'a version never changes');
END;
--> statement-breakpoint
CREATE TRIGGER `versions_stay` BEFORE DELETE ON `versions`
WHEN EXISTS (SELECT 1 FROM `studies` WHERE `id` = OLD.`study_id`)
BEGIN
	SELECT RAISE(ABORT, 'a version stays as long as its study');
END;
