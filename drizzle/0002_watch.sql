CREATE TABLE `tally` (
	`crawl_id` bigint unsigned NOT NULL,
	`kind` varchar(30) NOT NULL,
	`n` int NOT NULL,
	CONSTRAINT `tally_crawl_id_kind_pk` PRIMARY KEY(`crawl_id`,`kind`)
);
--> statement-breakpoint
CREATE INDEX `page_newest` ON `page` (`crawl_id`,`fetched_at`);