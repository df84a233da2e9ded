RENAME TABLE `crew` TO `crawl_worker`, `host_pace` TO `host_limit`, `kept_selection` TO `saved_selection`;--> statement-breakpoint
ALTER TABLE `crawl_worker` RENAME INDEX `crew_crawl` TO `crawl_worker_crawl`;--> statement-breakpoint
ALTER TABLE `host_limit` ADD `delay_ms` int NOT NULL DEFAULT 0, ADD `delay_at` datetime(3);--> statement-breakpoint
ALTER TABLE `job` ADD `kind` varchar(10) NOT NULL DEFAULT 'crawl', ADD `lease` int NOT NULL DEFAULT 0, ADD `step` varchar(60), ADD `steps_done` int NOT NULL DEFAULT 0, ADD `steps` int NOT NULL DEFAULT 0;--> statement-breakpoint
CREATE TABLE `url_import` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`site_id` bigint unsigned NOT NULL,
	`kind` varchar(10) NOT NULL,
	`name` varchar(80) NOT NULL,
	`urls` int NOT NULL,
	`created_at` datetime(3) NOT NULL DEFAULT current_timestamp(3),
	`replaced_at` datetime(3),
	CONSTRAINT `url_import_id` PRIMARY KEY(`id`)
);--> statement-breakpoint
CREATE INDEX `url_import_site` ON `url_import` (`site_id`);--> statement-breakpoint
CREATE TABLE `import_chunk` (
	`import_id` bigint unsigned NOT NULL,
	`seq` int NOT NULL,
	`data` mediumblob NOT NULL,
	CONSTRAINT `import_chunk_import_id_seq_pk` PRIMARY KEY(`import_id`,`seq`)
);--> statement-breakpoint
CREATE TABLE `crawl_import` (
	`crawl_id` bigint unsigned NOT NULL,
	`import_id` bigint unsigned NOT NULL,
	CONSTRAINT `crawl_import_crawl_id_import_id_pk` PRIMARY KEY(`crawl_id`,`import_id`)
);--> statement-breakpoint
ALTER TABLE `page` CHANGE `blocked_by` `robots_rule` longtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin, CHANGE `directives` `page_rules` mediumtext CHARACTER SET utf8mb4 COLLATE utf8mb4_bin, CHANGE `words` `word_count` int, ADD `unreadable_reason` varchar(10);--> statement-breakpoint
UPDATE `page` SET `robots_rule` = IF(`robots_rule` RLIKE '^(Allow|Disallow): .* \\(line [0-9]+\\)$',
	JSON_OBJECT('line', CAST(REGEXP_SUBSTR(REGEXP_SUBSTR(`robots_rule`, '[0-9]+\\)$'), '^[0-9]+') AS unsigned), 'directive', LOWER(SUBSTRING_INDEX(`robots_rule`, ':', 1)), 'path', REGEXP_REPLACE(REGEXP_REPLACE(`robots_rule`, '^(Allow|Disallow): ', ''), ' \\(line [0-9]+\\)$', ''), 'group', ''),
	JSON_OBJECT('line', 0, 'directive', 'unreadable', 'path', '', 'group', '')) WHERE `robots_rule` IS NOT NULL;--> statement-breakpoint
ALTER TABLE `sitemap_file` CHANGE `passed_over` `skipped` int NOT NULL DEFAULT 0;--> statement-breakpoint
UPDATE `saved_selection` SET `text` = REGEXP_REPLACE(`text`, '\\bwords\\b', 'word_count') WHERE `over` = 'pages';
