CREATE TABLE `crawl` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`site_id` bigint unsigned NOT NULL,
	`settings` longtext character set utf8mb4 collate utf8mb4_bin NOT NULL,
	`state` varchar(10) NOT NULL DEFAULT 'waiting',
	`reason` mediumtext character set utf8mb4 collate utf8mb4_bin,
	`limited` boolean NOT NULL DEFAULT false,
	`stop_requested` boolean NOT NULL DEFAULT false,
	`known` int NOT NULL DEFAULT 0,
	`done` int NOT NULL DEFAULT 0,
	`unanswered` int NOT NULL DEFAULT 0,
	`bytes` bigint NOT NULL DEFAULT 0,
	`current` mediumtext character set utf8mb4 collate utf8mb4_bin,
	`created_at` datetime(3) NOT NULL DEFAULT current_timestamp(3),
	`started_at` datetime(3),
	`ended_at` datetime(3),
	CONSTRAINT `crawl_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `frontier` (
	`crawl_id` bigint unsigned NOT NULL,
	`url_id` bigint unsigned NOT NULL,
	`rank` int NOT NULL,
	`hops` tinyint NOT NULL DEFAULT 0,
	`done` boolean NOT NULL DEFAULT false,
	CONSTRAINT `frontier_crawl_id_url_id_pk` PRIMARY KEY(`crawl_id`,`url_id`)
);
--> statement-breakpoint
CREATE TABLE `job` (
	`crawl_id` bigint unsigned NOT NULL,
	`state` varchar(10) NOT NULL DEFAULT 'waiting',
	`owner` varchar(80),
	`lease_until` datetime(3),
	CONSTRAINT `job_crawl_id` PRIMARY KEY(`crawl_id`)
);
--> statement-breakpoint
CREATE TABLE `page` (
	`crawl_id` bigint unsigned NOT NULL,
	`url_id` bigint unsigned NOT NULL,
	`blocked_by` mediumtext character set utf8mb4 collate utf8mb4_bin,
	`status` smallint,
	`error` varchar(20),
	`content_type` varchar(255),
	`html` boolean NOT NULL,
	`bytes` int,
	`response_ms` int,
	`fetched_at` datetime(3),
	`redirect_to` mediumtext character set utf8mb4 collate utf8mb4_bin,
	`title` mediumtext character set utf8mb4 collate utf8mb4_bin,
	`description` mediumtext character set utf8mb4 collate utf8mb4_bin,
	`h1` mediumtext character set utf8mb4 collate utf8mb4_bin,
	`language` varchar(100),
	`robots` mediumtext character set utf8mb4 collate utf8mb4_bin,
	`noindex` boolean,
	`page_nofollow` boolean,
	`canonical` mediumtext character set utf8mb4 collate utf8mb4_bin,
	`links` mediumblob NOT NULL,
	CONSTRAINT `page_crawl_id_url_id_pk` PRIMARY KEY(`crawl_id`,`url_id`)
);
--> statement-breakpoint
CREATE TABLE `phrase` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`site_id` bigint unsigned NOT NULL,
	`hash` binary(16) NOT NULL,
	`text` mediumtext character set utf8mb4 collate utf8mb4_bin NOT NULL,
	CONSTRAINT `phrase_id` PRIMARY KEY(`id`),
	CONSTRAINT `phrase_hash` UNIQUE(`site_id`,`hash`)
);
--> statement-breakpoint
CREATE TABLE `robots_file` (
	`crawl_id` bigint unsigned NOT NULL,
	`origin_hash` binary(16) NOT NULL,
	`origin` mediumtext character set utf8mb4 collate utf8mb4_bin NOT NULL,
	`status` smallint,
	`fault` mediumtext character set utf8mb4 collate utf8mb4_bin,
	`body` mediumtext character set utf8mb4 collate utf8mb4_bin NOT NULL,
	CONSTRAINT `robots_file_crawl_id_origin_hash_pk` PRIMARY KEY(`crawl_id`,`origin_hash`)
);
--> statement-breakpoint
CREATE TABLE `site` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`start` mediumtext character set utf8mb4 collate utf8mb4_bin NOT NULL,
	`start_hash` binary(16) NOT NULL,
	`settings` longtext character set utf8mb4 collate utf8mb4_bin NOT NULL,
	`created_at` datetime(3) NOT NULL DEFAULT current_timestamp(3),
	CONSTRAINT `site_id` PRIMARY KEY(`id`),
	CONSTRAINT `site_start` UNIQUE(`start_hash`)
);
--> statement-breakpoint
CREATE TABLE `sitemap_entry` (
	`crawl_id` bigint unsigned NOT NULL,
	`sitemap_id` bigint unsigned NOT NULL,
	`line` int NOT NULL,
	`url_id` bigint unsigned NOT NULL,
	`lastmod` varchar(64),
	CONSTRAINT `sitemap_entry_crawl_id_sitemap_id_line_url_id_pk` PRIMARY KEY(`crawl_id`,`sitemap_id`,`line`,`url_id`)
);
--> statement-breakpoint
CREATE TABLE `sitemap_file` (
	`crawl_id` bigint unsigned NOT NULL,
	`url_id` bigint unsigned NOT NULL,
	`entries` int NOT NULL DEFAULT 0,
	`passed_over` int NOT NULL DEFAULT 0,
	`fault` mediumtext character set utf8mb4 collate utf8mb4_bin,
	`fault_line` int,
	CONSTRAINT `sitemap_file_crawl_id_url_id_pk` PRIMARY KEY(`crawl_id`,`url_id`)
);
--> statement-breakpoint
CREATE TABLE `snapshot_chunk` (
	`crawl_id` bigint unsigned NOT NULL,
	`part` varchar(60) NOT NULL,
	`seq` int NOT NULL,
	`data` mediumblob NOT NULL,
	CONSTRAINT `snapshot_chunk_crawl_id_part_seq_pk` PRIMARY KEY(`crawl_id`,`part`,`seq`)
);
--> statement-breakpoint
CREATE TABLE `url` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`site_id` bigint unsigned NOT NULL,
	`hash` binary(16) NOT NULL,
	`text` mediumtext character set utf8mb4 collate utf8mb4_bin NOT NULL,
	CONSTRAINT `url_id` PRIMARY KEY(`id`),
	CONSTRAINT `url_hash` UNIQUE(`site_id`,`hash`)
);
--> statement-breakpoint
CREATE INDEX `crawl_site` ON `crawl` (`site_id`,`id`);--> statement-breakpoint
CREATE INDEX `frontier_next` ON `frontier` (`crawl_id`,`done`,`rank`,`url_id`);--> statement-breakpoint
CREATE INDEX `job_open` ON `job` (`state`,`lease_until`);