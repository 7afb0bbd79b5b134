CREATE TABLE `places` (
	`response_id` text NOT NULL,
	`token` text NOT NULL,
	`quota` text NOT NULL,
	PRIMARY KEY(`response_id`, `quota`),
	FOREIGN KEY (`response_id`) REFERENCES `responses`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `places_quota` ON `places` (`token`,`quota`);--> statement-breakpoint
CREATE TABLE `responses` (
	`id` text PRIMARY KEY NOT NULL,
	`token` text NOT NULL,
	`number` integer NOT NULL,
	`code` text NOT NULL,
	`kept` text NOT NULL,
	`ending` text,
	`device` text NOT NULL,
	`changed_at` integer NOT NULL,
	FOREIGN KEY (`token`) REFERENCES `trials`(`token`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `responses_number` ON `responses` (`token`,`number`);--> statement-breakpoint
CREATE UNIQUE INDEX `responses_code` ON `responses` (`token`,`code`);--> statement-breakpoint
CREATE TABLE `trials` (
	`token` text PRIMARY KEY NOT NULL,
	`study_id` text NOT NULL,
	`name` text NOT NULL,
	`version` integer,
	`document` text NOT NULL,
	`checksum` text NOT NULL,
	`settings` text NOT NULL,
	`state` text NOT NULL,
	`seed` integer NOT NULL,
	`begun` integer NOT NULL,
	`declined` integer NOT NULL,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`study_id`) REFERENCES `studies`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `trials_study` ON `trials` (`study_id`);