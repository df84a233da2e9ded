CREATE TABLE `import_part` (
	`import_id` bigint unsigned NOT NULL,
	`part` varchar(100) NOT NULL,
	`seq` int NOT NULL,
	`data` mediumblob NOT NULL,
	CONSTRAINT `import_part_import_id_part_seq_pk` PRIMARY KEY(`import_id`,`part`,`seq`)
);
--> statement-breakpoint
ALTER TABLE `url_import` ADD `file` varchar(255);--> statement-breakpoint
ALTER TABLE `url_import` ADD `digest` binary(16);--> statement-breakpoint
ALTER TABLE `url_import` ADD `lines` int DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `url_import` ADD `rejected` int DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `url_import` ADD `rejects` mediumblob;