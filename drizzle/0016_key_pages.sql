CREATE TABLE `key_page` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`site_id` bigint unsigned NOT NULL,
	`address` mediumtext character set utf8mb4 collate utf8mb4_bin NOT NULL,
	`address_hash` binary(16) NOT NULL,
	CONSTRAINT `key_page_id` PRIMARY KEY(`id`),
	CONSTRAINT `key_page_address` UNIQUE(`site_id`,`address_hash`)
);
