CREATE TABLE "codes" (
	"token_hash" text PRIMARY KEY NOT NULL,
	"purpose" text NOT NULL,
	"email" text NOT NULL,
	"name" text DEFAULT '' NOT NULL,
	"password_hash" text,
	"code_hash" text NOT NULL,
	"attempts" integer DEFAULT 0 NOT NULL,
	"sent" integer DEFAULT 1 NOT NULL,
	"expires_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "file_bytes" (
	"item" text PRIMARY KEY NOT NULL,
	"bytes" "bytea" NOT NULL
);
--> statement-breakpoint
CREATE TABLE "item_drafts" (
	"item" text PRIMARY KEY NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"document" jsonb NOT NULL,
	"by" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "keys" (
	"id" text PRIMARY KEY NOT NULL,
	"person" text NOT NULL,
	"use" text NOT NULL,
	"name" text NOT NULL,
	"hash" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "keys_hash_unique" UNIQUE("hash")
);
--> statement-breakpoint
CREATE TABLE "old_addresses" (
	"address" text PRIMARY KEY NOT NULL,
	"item" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "outbox" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "outbox_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"to_address" text NOT NULL,
	"subject" text NOT NULL,
	"text" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "removals" (
	"id" text PRIMARY KEY NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"by" text NOT NULL,
	"summary" text NOT NULL,
	"removed" jsonb NOT NULL,
	"undone" boolean DEFAULT false NOT NULL
);
--> statement-breakpoint
CREATE TABLE "search_texts" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "search_texts_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"item" text NOT NULL,
	"kind" text NOT NULL,
	"path" text DEFAULT '' NOT NULL,
	"text" text NOT NULL,
	"words" "tsvector" GENERATED ALWAYS AS (to_tsvector('english', text)) STORED NOT NULL
);
--> statement-breakpoint
ALTER TABLE "groups" ADD COLUMN "open" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "items" ADD COLUMN "type" text;--> statement-breakpoint
ALTER TABLE "items" ADD COLUMN "name" text;--> statement-breakpoint
ALTER TABLE "items" ADD COLUMN "media_type" text;--> statement-breakpoint
ALTER TABLE "items" ADD COLUMN "size" integer;--> statement-breakpoint
ALTER TABLE "items" ADD COLUMN "section" jsonb;--> statement-breakpoint
ALTER TABLE "items" ADD COLUMN "picture" jsonb;--> statement-breakpoint
ALTER TABLE "items" ADD COLUMN "version" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "item_drafts" ADD CONSTRAINT "item_drafts_item_items_id_fk" FOREIGN KEY ("item") REFERENCES "public"."items"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "keys" ADD CONSTRAINT "keys_person_people_id_fk" FOREIGN KEY ("person") REFERENCES "public"."people"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "old_addresses" ADD CONSTRAINT "old_addresses_item_items_id_fk" FOREIGN KEY ("item") REFERENCES "public"."items"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "search_texts" ADD CONSTRAINT "search_texts_item_items_id_fk" FOREIGN KEY ("item") REFERENCES "public"."items"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "keys_person" ON "keys" USING btree ("person");--> statement-breakpoint
CREATE INDEX "search_words" ON "search_texts" USING gin ("words");--> statement-breakpoint
CREATE INDEX "search_item" ON "search_texts" USING btree ("item");--> statement-breakpoint
INSERT INTO "items" ("id", "kind", "parent", "rank", "title", "published", "type", "body") SELECT "id" || '-text', 'section', "id", 0, 'Text', true, 'text', "body" FROM "items" WHERE "kind" = 'page' AND "body" <> '';--> statement-breakpoint
UPDATE "items" SET "body" = '' WHERE "kind" = 'page';
