CREATE TABLE `respondents` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`study_id` text NOT NULL,
	`name` text NOT NULL,
	`walked` text NOT NULL,
	`items` text NOT NULL,
	`marks` text NOT NULL,
	`row` text NOT NULL,
	`at` integer NOT NULL,
	FOREIGN KEY (`study_id`) REFERENCES `studies`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `respondents_name` ON `respondents` (`study_id`,`name`);