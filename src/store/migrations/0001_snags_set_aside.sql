CREATE TABLE `asides` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`study_id` text NOT NULL,
	`snag` text NOT NULL,
	`reason` text NOT NULL,
	`reviewer` text NOT NULL,
	`at` integer NOT NULL,
	FOREIGN KEY (`study_id`) REFERENCES `studies`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `asides_snag` ON `asides` (`study_id`,`snag`);