ALTER TABLE "settings" ADD COLUMN "sign_up" text DEFAULT 'anybody' NOT NULL;--> statement-breakpoint
ALTER TABLE "settings" ADD COLUMN "sign_up_domains" jsonb DEFAULT '[]'::jsonb NOT NULL;