CREATE TABLE `follow_ups` (
	`token` text NOT NULL,
	`number` integer NOT NULL,
	`named` text NOT NULL,
	`version` integer,
	`document` text NOT NULL,
	`checksum` text NOT NULL,
	`begun` integer NOT NULL,
	PRIMARY KEY(`token`, `number`),
	FOREIGN KEY (`token`) REFERENCES `trials`(`token`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `people` (
	`key` text PRIMARY KEY NOT NULL,
	`token` text NOT NULL,
	`name` text NOT NULL,
	`given` text NOT NULL,
	`added_at` integer NOT NULL,
	FOREIGN KEY (`token`) REFERENCES `trials`(`token`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `people_name` ON `people` (`token`,`name`);--> statement-breakpoint
DROP INDEX `responses_number`;--> statement-breakpoint
DROP INDEX `responses_code`;--> statement-breakpoint
ALTER TABLE `responses` ADD `part` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `responses` ADD `questionnaire` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `responses` ADD `person` text;--> statement-breakpoint
ALTER TABLE `responses` ADD `closed_by` text;--> statement-breakpoint
CREATE UNIQUE INDEX `responses_part` ON `responses` (`token`,`number`,`part`);--> statement-breakpoint
CREATE UNIQUE INDEX `responses_return` ON `responses` (`token`,`code`,`part`);--> statement-breakpoint
CREATE INDEX `responses_person` ON `responses` (`token`,`person`);--> statement-breakpoint
ALTER TABLE `trials` ADD `removed` integer DEFAULT 0 NOT NULL;