CREATE TABLE `dismissed_place` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`site_id` bigint unsigned NOT NULL,
	`source` mediumtext character set utf8mb4 collate utf8mb4_bin NOT NULL,
	`target` mediumtext character set utf8mb4 collate utf8mb4_bin NOT NULL,
	`pair_hash` binary(16) NOT NULL,
	CONSTRAINT `dismissed_place_id` PRIMARY KEY(`id`),
	CONSTRAINT `dismissed_place_pair` UNIQUE(`site_id`,`pair_hash`)
);
