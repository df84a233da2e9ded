CREATE TABLE `meant_structure` (
	`site_id` bigint unsigned NOT NULL,
	`text` mediumtext character set utf8mb4 collate utf8mb4_bin NOT NULL,
	CONSTRAINT `meant_structure_site_id` PRIMARY KEY(`site_id`)
);
--> statement-breakpoint
ALTER TABLE `crawl` ADD `planned` boolean DEFAULT false NOT NULL;