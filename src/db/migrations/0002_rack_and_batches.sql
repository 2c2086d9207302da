CREATE TABLE `batch_layouts` (
	`batch_id` text NOT NULL,
	`task_id` text NOT NULL,
	`kept` text NOT NULL,
	`at` integer NOT NULL,
	`released_at` integer,
	PRIMARY KEY(`batch_id`, `task_id`),
	FOREIGN KEY (`batch_id`) REFERENCES `batches`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `batches` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`jobs` text NOT NULL,
	`at` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `rack_pieces` (
	`id` text PRIMARY KEY NOT NULL,
	`label` text NOT NULL,
	`entry_id` text NOT NULL,
	`material` text,
	`length` real NOT NULL,
	`width` real,
	`place` text NOT NULL,
	`note` text NOT NULL,
	`came_from` text,
	`holder_job` text,
	`holder_code` text,
	`holder_variant` text,
	`holder_task` text,
	`at` integer NOT NULL,
	`gone_at` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `rack_pieces_label_unique` ON `rack_pieces` (`label`);--> statement-breakpoint
ALTER TABLE `layouts` ADD `released_at` integer;