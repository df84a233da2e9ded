CREATE TABLE `kept_selection` (
	`site_id` bigint unsigned NOT NULL,
	`name` varchar(80) NOT NULL,
	`over` varchar(5) NOT NULL,
	`text` mediumtext character set utf8mb4 collate utf8mb4_bin NOT NULL,
	CONSTRAINT `kept_selection_site_id_name_pk` PRIMARY KEY(`site_id`,`name`)
);
--> statement-breakpoint
ALTER TABLE `page` ADD `headers` mediumtext character set utf8mb4 collate utf8mb4_bin;