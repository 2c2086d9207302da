ALTER TABLE `edit_log` ADD `edit_id` text;--> statement-breakpoint
CREATE UNIQUE INDEX `edit_log_edit` ON `edit_log` (`job_id`,`edit_id`);