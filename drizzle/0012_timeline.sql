CREATE TABLE `bound` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`site_id` bigint unsigned NOT NULL,
	`name` varchar(120) NOT NULL,
	`over` varchar(7) NOT NULL,
	`text` mediumtext character set utf8mb4 collate utf8mb4_bin NOT NULL,
	`at_most` int,
	CONSTRAINT `bound_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `bound_count` (
	`bound_id` bigint unsigned NOT NULL,
	`crawl_id` bigint unsigned NOT NULL,
	`analysed_at` datetime(3) NOT NULL,
	`count` int,
	`fault` varchar(500),
	CONSTRAINT `bound_count_bound_id_crawl_id_pk` PRIMARY KEY(`bound_id`,`crawl_id`)
);
--> statement-breakpoint
CREATE TABLE `date_note` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`site_id` bigint unsigned NOT NULL,
	`day` varchar(10) NOT NULL,
	`text` varchar(300) NOT NULL,
	CONSTRAINT `date_note_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `schedule` (
	`site_id` bigint unsigned NOT NULL,
	`every` varchar(5) NOT NULL,
	`at` varchar(5) NOT NULL,
	`day` tinyint NOT NULL,
	`zone` varchar(64) NOT NULL,
	`paused` boolean NOT NULL DEFAULT false,
	`next_at` datetime(3) NOT NULL,
	CONSTRAINT `schedule_site_id` PRIMARY KEY(`site_id`)
);
--> statement-breakpoint
ALTER TABLE `crawl` ADD `pinned` boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `site` ADD `keep_crawls` int;--> statement-breakpoint
CREATE INDEX `bound_site` ON `bound` (`site_id`);--> statement-breakpoint
CREATE INDEX `date_note_site` ON `date_note` (`site_id`,`day`);