ALTER TABLE "outbox" ADD COLUMN "reply_to" text;--> statement-breakpoint
ALTER TABLE "outbox" ADD COLUMN "good_until" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "outbox" ADD COLUMN "state" text DEFAULT 'waiting' NOT NULL;--> statement-breakpoint
ALTER TABLE "outbox" ADD COLUMN "tries" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "outbox" ADD COLUMN "next_try" timestamp with time zone DEFAULT now() NOT NULL;--> statement-breakpoint
ALTER TABLE "outbox" ADD COLUMN "sent_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "outbox" ADD COLUMN "problem" text DEFAULT '' NOT NULL;--> statement-breakpoint
CREATE INDEX "outbox_waiting" ON "outbox" USING btree ("next_try") WHERE "outbox"."state" = 'waiting';--> statement-breakpoint
-- What was written before mail could be sent stays here.
UPDATE "outbox" SET "state" = 'kept';
