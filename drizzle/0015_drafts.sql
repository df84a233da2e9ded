CREATE TABLE `draft` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`site_id` bigint unsigned NOT NULL,
	`name` varchar(80) NOT NULL DEFAULT '',
	`version` int NOT NULL DEFAULT 0,
	`created_at` datetime(3) NOT NULL DEFAULT current_timestamp(3),
	`used_at` datetime(3) NOT NULL DEFAULT current_timestamp(3),
	CONSTRAINT `draft_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `draft_step` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`draft_id` bigint unsigned NOT NULL,
	`site_id` bigint unsigned NOT NULL,
	`at` datetime(3) NOT NULL DEFAULT current_timestamp(3),
	`step` longtext character set utf8mb4 collate utf8mb4_bin NOT NULL,
	`undone` boolean NOT NULL DEFAULT false,
	CONSTRAINT `draft_step_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE INDEX `draft_site` ON `draft` (`site_id`);--> statement-breakpoint
CREATE INDEX `draft_step_draft` ON `draft_step` (`draft_id`);--> statement-breakpoint
CREATE INDEX `draft_step_site` ON `draft_step` (`site_id`);