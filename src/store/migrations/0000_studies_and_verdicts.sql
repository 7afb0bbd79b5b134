CREATE TABLE `studies` (
	`id` text PRIMARY KEY NOT NULL,
	`document` text NOT NULL,
	`revision` integer NOT NULL,
	`created_at` integer NOT NULL,
	`changed_at` integer NOT NULL,
	`removed_at` integer
);
--> statement-breakpoint
CREATE TABLE `verdicts` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`study_id` text NOT NULL,
	`route` text NOT NULL,
	`marks` text NOT NULL,
	`items` text NOT NULL,
	`verdict` text NOT NULL,
	`remark` text NOT NULL,
	`place` text NOT NULL,
	`reviewer` text NOT NULL,
	`at` integer NOT NULL,
	FOREIGN KEY (`study_id`) REFERENCES `studies`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `verdicts_route` ON `verdicts` (`study_id`,`route`);--> statement-breakpoint
CREATE INDEX `verdicts_study` ON `verdicts` (`study_id`);