ALTER TABLE "codes" ADD COLUMN "profile" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "settings" ADD COLUMN "look" jsonb;--> statement-breakpoint
ALTER TABLE "settings" ADD COLUMN "words" jsonb DEFAULT '{"foot":"","missing":""}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "settings" ADD COLUMN "starts" jsonb DEFAULT '{"level":null,"roles":[],"groups":[],"asks":[]}'::jsonb NOT NULL;