CREATE TABLE `comments` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`study_id` text NOT NULL,
	`place` text NOT NULL,
	`text` text NOT NULL,
	`author` text NOT NULL,
	`at` integer NOT NULL,
	`settled_by` text,
	`settled_at` integer,
	FOREIGN KEY (`study_id`) REFERENCES `studies`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `comments_study` ON `comments` (`study_id`);