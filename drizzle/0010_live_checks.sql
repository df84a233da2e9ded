CREATE TABLE `live_check` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`site_id` bigint unsigned NOT NULL,
	`kind` varchar(10) NOT NULL,
	`address_hash` binary(16) NOT NULL,
	`address` mediumtext character set utf8mb4 collate utf8mb4_bin NOT NULL,
	`state` varchar(10) NOT NULL DEFAULT 'waiting',
	`lease_until` datetime(3),
	`result` longtext character set utf8mb4 collate utf8mb4_bin,
	`fault` mediumtext character set utf8mb4 collate utf8mb4_bin,
	`ended_at` datetime(3),
	CONSTRAINT `live_check_id` PRIMARY KEY(`id`),
	CONSTRAINT `live_check_subject` UNIQUE(`site_id`,`kind`,`address_hash`)
);
--> statement-breakpoint
ALTER TABLE `page` ADD `modified` varchar(40);--> statement-breakpoint
ALTER TABLE `robots_file` ADD `answer` longtext character set utf8mb4 collate utf8mb4_bin;--> statement-breakpoint
ALTER TABLE `sitemap_file` ADD `index_id` bigint unsigned;--> statement-breakpoint
ALTER TABLE `sitemap_file` ADD `answer` longtext character set utf8mb4 collate utf8mb4_bin;--> statement-breakpoint
CREATE INDEX `live_check_open` ON `live_check` (`state`,`lease_until`);