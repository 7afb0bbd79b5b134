CREATE TABLE `cases` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`study_id` text NOT NULL,
	`case_id` text NOT NULL,
	`entry` integer NOT NULL,
	`keyed_by` text NOT NULL,
	`answers` text NOT NULL,
	`settled_by` text,
	`at` integer NOT NULL,
	FOREIGN KEY (`study_id`) REFERENCES `studies`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `cases_entry` ON `cases` (`study_id`,`case_id`,`entry`);--> statement-breakpoint
CREATE TABLE `datasets` (
	`id` text PRIMARY KEY NOT NULL,
	`study_id` text NOT NULL,
	`name` text NOT NULL,
	`rows` integer NOT NULL,
	`body` blob NOT NULL,
	`at` integer NOT NULL,
	FOREIGN KEY (`study_id`) REFERENCES `studies`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `datasets_name` ON `datasets` (`study_id`,`name`);--> statement-breakpoint
CREATE TABLE `matches` (
	`study_id` text PRIMARY KEY NOT NULL,
	`said` text NOT NULL,
	FOREIGN KEY (`study_id`) REFERENCES `studies`(`id`) ON UPDATE no action ON DELETE cascade
);
