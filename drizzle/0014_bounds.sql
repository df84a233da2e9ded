ALTER TABLE `frontier` ADD `host_left` boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `sitemap_file` ADD `waiting` boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `sitemap_file` ADD `nesting` tinyint DEFAULT 0 NOT NULL;--> statement-breakpoint
CREATE INDEX `sitemap_file_next` ON `sitemap_file` (`crawl_id`,`waiting`,`nesting`,`url_id`);