CREATE TABLE "hand_in_files" (
	"id" text PRIMARY KEY NOT NULL,
	"hand_in" text NOT NULL,
	"rank" integer NOT NULL,
	"name" text NOT NULL,
	"media_type" text NOT NULL,
	"size" integer NOT NULL,
	"bytes" "bytea" NOT NULL
);
--> statement-breakpoint
CREATE TABLE "hand_ins" (
	"id" text PRIMARY KEY NOT NULL,
	"person" text NOT NULL,
	"activity" text NOT NULL,
	"version" integer NOT NULL,
	"text" text DEFAULT '' NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"state" text NOT NULL,
	"score" double precision,
	"words" text DEFAULT '' NOT NULL,
	"by" text DEFAULT '' NOT NULL,
	"judged" timestamp with time zone,
	CONSTRAINT "hand_ins_version" UNIQUE("person","activity","version")
);
--> statement-breakpoint
CREATE TABLE "played" (
	"person" text NOT NULL,
	"activity" text NOT NULL,
	"ranges" jsonb NOT NULL,
	CONSTRAINT "played_person_activity_pk" PRIMARY KEY("person","activity")
);
--> statement-breakpoint
ALTER TABLE "items" ADD COLUMN "done_when" text;--> statement-breakpoint
ALTER TABLE "items" ADD COLUMN "task" jsonb;--> statement-breakpoint
ALTER TABLE "person_groups" ADD COLUMN "since" date;--> statement-breakpoint
ALTER TABLE "hand_in_files" ADD CONSTRAINT "hand_in_files_hand_in_hand_ins_id_fk" FOREIGN KEY ("hand_in") REFERENCES "public"."hand_ins"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "hand_ins" ADD CONSTRAINT "hand_ins_person_people_id_fk" FOREIGN KEY ("person") REFERENCES "public"."people"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "played" ADD CONSTRAINT "played_person_people_id_fk" FOREIGN KEY ("person") REFERENCES "public"."people"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "hand_in_files_hand_in" ON "hand_in_files" USING btree ("hand_in");--> statement-breakpoint
CREATE UNIQUE INDEX "hand_ins_waiting" ON "hand_ins" USING btree ("person","activity") WHERE "hand_ins"."state" = 'waiting';--> statement-breakpoint
CREATE INDEX "hand_ins_activity" ON "hand_ins" USING btree ("activity");