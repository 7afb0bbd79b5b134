ALTER TABLE `comments` ADD `link` text;--> statement-breakpoint
ALTER TABLE `verdicts` ADD `link` text;