CREATE TABLE "activities" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	CONSTRAINT "activities_name_unique" UNIQUE("name")
);
--> statement-breakpoint
CREATE TABLE "completions" (
	"person" text NOT NULL,
	"activity" text NOT NULL,
	"on" date NOT NULL,
	"score" double precision,
	CONSTRAINT "completions_person_activity_pk" PRIMARY KEY("person","activity")
);
--> statement-breakpoint
CREATE TABLE "courses" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	CONSTRAINT "courses_name_unique" UNIQUE("name")
);
--> statement-breakpoint
CREATE TABLE "enrolments" (
	"person" text NOT NULL,
	"course" text NOT NULL,
	"on" date NOT NULL,
	CONSTRAINT "enrolments_person_course_pk" PRIMARY KEY("person","course")
);
--> statement-breakpoint
CREATE TABLE "fields" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"rank" integer NOT NULL,
	"type" text NOT NULL,
	"choices" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"private" boolean DEFAULT false NOT NULL,
	"editable" boolean DEFAULT false NOT NULL,
	CONSTRAINT "fields_name_unique" UNIQUE("name")
);
--> statement-breakpoint
CREATE TABLE "passphrases" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"hash" text,
	CONSTRAINT "passphrases_name_unique" UNIQUE("name"),
	CONSTRAINT "passphrases_hash_unique" UNIQUE("hash")
);
--> statement-breakpoint
CREATE TABLE "people_changes" (
	"id" text PRIMARY KEY NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"by" text NOT NULL,
	"summary" text NOT NULL,
	"people" jsonb NOT NULL,
	"names" jsonb,
	"undone" boolean DEFAULT false NOT NULL
);
--> statement-breakpoint
CREATE TABLE "products" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"kind" text NOT NULL,
	CONSTRAINT "products_name_unique" UNIQUE("name")
);
--> statement-breakpoint
CREATE TABLE "purchases" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "purchases_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"person" text NOT NULL,
	"product" text NOT NULL,
	"on" date NOT NULL,
	"until" date,
	"state" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "settings" (
	"id" integer PRIMARY KEY DEFAULT 1 NOT NULL,
	"time_zone" text NOT NULL,
	"share_key" text NOT NULL,
	"passphrase_salt" text NOT NULL,
	CONSTRAINT "only_one_setting" CHECK ("settings"."id" = 1)
);
--> statement-breakpoint
ALTER TABLE "levels" DROP CONSTRAINT "levels_rank_unique";--> statement-breakpoint
ALTER TABLE "sessions" ALTER COLUMN "person" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "items" ADD COLUMN "facts" jsonb;--> statement-breakpoint
ALTER TABLE "people" ADD COLUMN "profile" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "people" ADD COLUMN "joined" date;--> statement-breakpoint
ALTER TABLE "sessions" ADD COLUMN "passphrases" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "completions" ADD CONSTRAINT "completions_person_people_id_fk" FOREIGN KEY ("person") REFERENCES "public"."people"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "completions" ADD CONSTRAINT "completions_activity_activities_id_fk" FOREIGN KEY ("activity") REFERENCES "public"."activities"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "enrolments" ADD CONSTRAINT "enrolments_person_people_id_fk" FOREIGN KEY ("person") REFERENCES "public"."people"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "enrolments" ADD CONSTRAINT "enrolments_course_courses_id_fk" FOREIGN KEY ("course") REFERENCES "public"."courses"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "purchases" ADD CONSTRAINT "purchases_person_people_id_fk" FOREIGN KEY ("person") REFERENCES "public"."people"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "purchases" ADD CONSTRAINT "purchases_product_products_id_fk" FOREIGN KEY ("product") REFERENCES "public"."products"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "purchases_person" ON "purchases" USING btree ("person");