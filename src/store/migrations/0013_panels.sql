CREATE TABLE `letters` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`token` text NOT NULL,
	`person` text NOT NULL,
	`kind` text NOT NULL,
	`at` integer NOT NULL,
	`subject` text NOT NULL,
	`text` text NOT NULL,
	FOREIGN KEY (`token`) REFERENCES `trials`(`token`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`person`) REFERENCES `people`(`key`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `letters_once` ON `letters` (`person`,`kind`);--> statement-breakpoint
CREATE INDEX `letters_pile` ON `letters` (`token`,`at`,`kind`);--> statement-breakpoint
CREATE TABLE `panels` (
	`token` text PRIMARY KEY NOT NULL,
	`settings` text NOT NULL,
	`clock` integer NOT NULL,
	FOREIGN KEY (`token`) REFERENCES `trials`(`token`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
ALTER TABLE `people` ADD `is_settled` integer DEFAULT false NOT NULL;