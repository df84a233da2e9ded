CREATE TABLE `dismissal` (
	`id` bigint unsigned AUTO_INCREMENT NOT NULL,
	`site_id` bigint unsigned NOT NULL,
	`kind` varchar(10) NOT NULL,
	`what` mediumtext character set utf8mb4 collate utf8mb4_bin NOT NULL,
	`target` mediumtext character set utf8mb4 collate utf8mb4_bin NOT NULL,
	`key_hash` binary(16) NOT NULL,
	CONSTRAINT `dismissal_id` PRIMARY KEY(`id`),
	CONSTRAINT `dismissal_key` UNIQUE(`site_id`,`key_hash`)
);
