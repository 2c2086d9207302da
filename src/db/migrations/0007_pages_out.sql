CREATE TABLE `pages_out` (
	`job_id` text NOT NULL,
	`variant` text NOT NULL,
	`page_id` text NOT NULL,
	`revision` integer NOT NULL,
	`at` integer NOT NULL,
	`says` text NOT NULL,
	PRIMARY KEY(`job_id`, `variant`, `page_id`),
	FOREIGN KEY (`job_id`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE cascade
);
