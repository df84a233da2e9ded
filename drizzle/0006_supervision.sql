CREATE TABLE `worker` (
	`owner` varchar(80) NOT NULL,
	`started_at` datetime(3) NOT NULL,
	`seen_at` datetime(3) NOT NULL,
	`restarts` int NOT NULL DEFAULT 0,
	CONSTRAINT `worker_owner` PRIMARY KEY(`owner`)
);
--> statement-breakpoint
ALTER TABLE `job` ADD `losses` int DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `job` ADD `done_at_lease` int DEFAULT 0 NOT NULL;