CREATE TABLE `assets` (
	`id` text PRIMARY KEY NOT NULL,
	`asset` text NOT NULL,
	`at` integer NOT NULL
);
