CREATE TABLE `edit_log` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`job_id` text NOT NULL,
	`revision` integer NOT NULL,
	`action` text NOT NULL,
	`name` text NOT NULL,
	`state` text NOT NULL,
	`edit` text,
	`diff` text NOT NULL,
	`at` integer NOT NULL,
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `edit_log_job` ON `edit_log` (`job_id`,`revision`);--> statement-breakpoint
CREATE TABLE `jobs` (
	`id` text PRIMARY KEY NOT NULL,
	`code` text NOT NULL,
	`title` text NOT NULL,
	`document` text NOT NULL,
	`revision` integer NOT NULL,
	`created_at` integer NOT NULL,
	`updated_at` integer NOT NULL,
	`deleted_at` integer
);
--> statement-breakpoint
CREATE TABLE `layouts` (
	`job_id` text NOT NULL,
	`variant` text NOT NULL,
	`task_id` text NOT NULL,
	`kept` text NOT NULL,
	`at` integer NOT NULL,
	PRIMARY KEY(`job_id`, `variant`, `task_id`),
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `settings` (
	`name` text PRIMARY KEY NOT NULL,
	`value` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `stock_entries` (
	`id` text PRIMARY KEY NOT NULL,
	`kind` text NOT NULL,
	`position` integer NOT NULL,
	`name` text NOT NULL,
	`material` text,
	`facts` text NOT NULL,
	`revision` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `stock_sizes` (
	`entry_id` text NOT NULL,
	`position` integer NOT NULL,
	`length` real NOT NULL,
	`width` real,
	`price` real,
	`count` integer,
	PRIMARY KEY(`entry_id`, `position`),
	FOREIGN KEY (`entry_id`) REFERENCES `stock_entries`(`id`) ON UPDATE no action ON DELETE cascade
);
