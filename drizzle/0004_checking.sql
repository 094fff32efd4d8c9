CREATE TABLE "board_sets" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"stand_ins" jsonb NOT NULL,
	"by" text NOT NULL,
	CONSTRAINT "board_sets_name_unique" UNIQUE("name")
);
--> statement-breakpoint
CREATE TABLE "journal_counts" (
	"day" date NOT NULL,
	"item" text NOT NULL,
	"gate" text NOT NULL,
	"given" text NOT NULL,
	"visitor" text NOT NULL,
	"count" integer DEFAULT 0 NOT NULL,
	"left" integer DEFAULT 0 NOT NULL,
	"signed_in" integer DEFAULT 0 NOT NULL,
	"signed_up" integer DEFAULT 0 NOT NULL,
	"got_in" integer DEFAULT 0 NOT NULL,
	CONSTRAINT "journal_counts_day_item_gate_given_visitor_pk" PRIMARY KEY("day","item","gate","given","visitor")
);
--> statement-breakpoint
CREATE TABLE "journal_names" (
	"day" date NOT NULL,
	"item" text NOT NULL,
	"gate" text NOT NULL,
	"person" text NOT NULL,
	"count" integer DEFAULT 0 NOT NULL,
	CONSTRAINT "journal_names_day_item_gate_person_pk" PRIMARY KEY("day","item","gate","person")
);
--> statement-breakpoint
ALTER TABLE "people" ADD COLUMN "desk_right" text;--> statement-breakpoint
ALTER TABLE "people" ADD COLUMN "desk_branch" text;--> statement-breakpoint
ALTER TABLE "people_changes" ADD COLUMN "why" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "revisions" ADD COLUMN "effect" jsonb;--> statement-breakpoint
ALTER TABLE "settings" ADD COLUMN "journal" text DEFAULT 'counts' NOT NULL;--> statement-breakpoint
ALTER TABLE "settings" ADD COLUMN "journal_days" integer DEFAULT 90 NOT NULL;--> statement-breakpoint
ALTER TABLE "walks" ADD COLUMN "scene" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "journal_names" ADD CONSTRAINT "journal_names_person_people_id_fk" FOREIGN KEY ("person") REFERENCES "public"."people"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
UPDATE "people" SET "desk_right" = 'owner' WHERE "desk";
