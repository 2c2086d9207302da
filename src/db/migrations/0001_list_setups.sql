CREATE TABLE `list_setups` (
	`name` text PRIMARY KEY NOT NULL,
	`kept` text NOT NULL,
	`at` integer NOT NULL
);
