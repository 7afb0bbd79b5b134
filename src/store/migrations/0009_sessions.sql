CREATE TABLE `installation` (
	`name` text PRIMARY KEY NOT NULL,
	`value` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `sessions` (
	`checksum` text PRIMARY KEY NOT NULL,
	`author` text NOT NULL,
	`created_at` integer NOT NULL,
	`seen_at` integer NOT NULL
);
