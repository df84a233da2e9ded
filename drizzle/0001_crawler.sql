ALTER TABLE `crawl` DROP COLUMN `stop_requested`;--> statement-breakpoint
CREATE TABLE `crew` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`crawl_id` bigint unsigned NOT NULL,
	`owner` varchar(80) NOT NULL,
	`lease_until` datetime(3) NOT NULL,
	CONSTRAINT `crew_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `host_pace` (
	`hash` binary(16) NOT NULL,
	`host` mediumtext character set utf8mb4 collate utf8mb4_bin NOT NULL,
	`next_at` datetime(3) NOT NULL,
	`reason` mediumtext character set utf8mb4 collate utf8mb4_bin,
	CONSTRAINT `host_pace_hash` PRIMARY KEY(`hash`)
);
--> statement-breakpoint
CREATE TABLE `source` (
	`hash` binary(16) NOT NULL,
	`size` int NOT NULL,
	`data` longblob NOT NULL,
	CONSTRAINT `source_hash` PRIMARY KEY(`hash`)
);
--> statement-breakpoint
CREATE TABLE `trap` (
	`crawl_id` bigint unsigned NOT NULL,
	`family` binary(8) NOT NULL,
	`pattern` mediumtext character set utf8mb4 collate utf8mb4_bin NOT NULL,
	`reason` mediumtext character set utf8mb4 collate utf8mb4_bin NOT NULL,
	`fetched` int NOT NULL,
	`cut` int NOT NULL,
	`examples` longtext character set utf8mb4 collate utf8mb4_bin NOT NULL,
	CONSTRAINT `trap_crawl_id_family_pk` PRIMARY KEY(`crawl_id`,`family`)
);
--> statement-breakpoint
ALTER TABLE `crawl` ADD `request` varchar(10);--> statement-breakpoint
ALTER TABLE `crawl` ADD `secrets` mediumblob;--> statement-breakpoint
ALTER TABLE `crawl` ADD `cookies` mediumblob;--> statement-breakpoint
ALTER TABLE `crawl` ADD `base_id` bigint unsigned;--> statement-breakpoint
ALTER TABLE `crawl` ADD `rank` int DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `crawl` ADD `asked` int DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `crawl` ADD `ran_ms` bigint DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `frontier` ADD `held_by` bigint unsigned;--> statement-breakpoint
ALTER TABLE `frontier` ADD `family` binary(8);--> statement-breakpoint
ALTER TABLE `frontier` ADD `cut` boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `page` ADD `directives` mediumtext character set utf8mb4 collate utf8mb4_bin;--> statement-breakpoint
ALTER TABLE `page` ADD `breadcrumb` longtext character set utf8mb4 collate utf8mb4_bin;--> statement-breakpoint
ALTER TABLE `page` ADD `words` int;--> statement-breakpoint
ALTER TABLE `page` ADD `content_hash` binary(16);--> statement-breakpoint
ALTER TABLE `page` ADD `fingerprint` binary(8);--> statement-breakpoint
ALTER TABLE `page` ADD `ids` mediumtext character set utf8mb4 collate utf8mb4_bin;--> statement-breakpoint
ALTER TABLE `page` ADD `tries` tinyint DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `page` ADD `truncated` boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `page` ADD `carried` boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `site` ADD `secrets` mediumblob;--> statement-breakpoint
CREATE INDEX `crew_crawl` ON `crew` (`crawl_id`);--> statement-breakpoint
CREATE INDEX `frontier_family` ON `frontier` (`crawl_id`,`family`);