CREATE TABLE `ignored_finding` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`site_id` bigint unsigned NOT NULL,
	`finding` varchar(40) NOT NULL,
	`within` mediumtext character set utf8mb4 collate utf8mb4_bin NOT NULL,
	`reason` mediumtext character set utf8mb4 collate utf8mb4_bin NOT NULL,
	`created_at` datetime(3) NOT NULL DEFAULT current_timestamp(3),
	CONSTRAINT `ignored_finding_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `crawl` ADD `analysed_at` datetime(3);--> statement-breakpoint
ALTER TABLE `crawl` ADD `counts` longtext character set utf8mb4 collate utf8mb4_bin;--> statement-breakpoint
ALTER TABLE `crawl` ADD `space` bigint;--> statement-breakpoint
ALTER TABLE `crawl` ADD `deleted_at` datetime(3);--> statement-breakpoint
ALTER TABLE `page` ADD `word_filter` varbinary(512);--> statement-breakpoint
ALTER TABLE `site` ADD `name` varchar(80);--> statement-breakpoint
ALTER TABLE `site` ADD `deleted_at` datetime(3);--> statement-breakpoint
CREATE INDEX `ignored_finding_site` ON `ignored_finding` (`site_id`);--> statement-breakpoint
CREATE INDEX `page_source` ON `page` (`content_hash`);