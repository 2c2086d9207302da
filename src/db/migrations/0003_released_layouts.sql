CREATE TABLE `released_layouts` (
	`id` text PRIMARY KEY NOT NULL,
	`owner` text NOT NULL,
	`variant` text NOT NULL,
	`task_id` text NOT NULL,
	`kept` text NOT NULL,
	`at` integer NOT NULL
);
