CREATE TABLE `links` (
	`token` text PRIMARY KEY NOT NULL,
	`study_id` text NOT NULL,
	`name` text NOT NULL,
	`created_at` integer NOT NULL,
	`withdrawn_at` integer,
	FOREIGN KEY (`study_id`) REFERENCES `studies`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `links_study` ON `links` (`study_id`);