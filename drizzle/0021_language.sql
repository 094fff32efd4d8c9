ALTER TABLE "settings" ADD COLUMN "language" text DEFAULT 'en' NOT NULL;--> statement-breakpoint
ALTER TABLE "settings" ADD COLUMN "letters" jsonb DEFAULT '{}'::jsonb NOT NULL;