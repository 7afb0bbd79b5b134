CREATE TABLE `draws` (
	`study_id` text PRIMARY KEY NOT NULL,
	`seed` integer NOT NULL,
	`count` integer NOT NULL,
	`at` integer NOT NULL,
	FOREIGN KEY (`study_id`) REFERENCES `studies`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
ALTER TABLE `verdicts` ADD `walked` text;