CREATE TABLE `robots_draft` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`site_id` bigint unsigned NOT NULL,
	`origin` mediumtext character set utf8mb4 collate utf8mb4_bin NOT NULL,
	`name` varchar(80) NOT NULL,
	`note` mediumtext character set utf8mb4 collate utf8mb4_bin NOT NULL,
	`body` mediumtext character set utf8mb4 collate utf8mb4_bin NOT NULL,
	`saved_at` datetime(3) NOT NULL DEFAULT current_timestamp(3),
	CONSTRAINT `robots_draft_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE INDEX `robots_draft_site` ON `robots_draft` (`site_id`);