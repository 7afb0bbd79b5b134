CREATE TABLE `counted` (
	`token` text NOT NULL,
	`what` text NOT NULL,
	`at` integer NOT NULL,
	`count` integer NOT NULL,
	PRIMARY KEY(`token`, `what`, `at`),
	FOREIGN KEY (`token`) REFERENCES `trials`(`token`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `responses_marks` ON `responses` (`token`,`questionnaire`,`number`,`part`,`changed_at`,`closed_by`,`id`);