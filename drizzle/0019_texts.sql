CREATE TABLE `text_chunk` (
	`crawl_id` bigint unsigned NOT NULL,
	`part` varchar(60) NOT NULL,
	`seq` int NOT NULL,
	`data` mediumblob NOT NULL,
	CONSTRAINT `text_chunk_crawl_id_part_seq_pk` PRIMARY KEY(`crawl_id`,`part`,`seq`)
);
--> statement-breakpoint
ALTER TABLE `job` DROP PRIMARY KEY;--> statement-breakpoint
ALTER TABLE `job` ADD PRIMARY KEY(`crawl_id`,`kind`);