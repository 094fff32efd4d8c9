CREATE TABLE "quiz_attempts" (
	"id" text PRIMARY KEY NOT NULL,
	"person" text NOT NULL,
	"activity" text NOT NULL,
	"number" integer NOT NULL,
	"asked" jsonb NOT NULL,
	"answers" jsonb NOT NULL,
	"pass_mark" double precision NOT NULL,
	"begun" timestamp with time zone NOT NULL,
	"until" timestamp with time zone,
	"finished" timestamp with time zone,
	"score" double precision,
	CONSTRAINT "quiz_attempts_number" UNIQUE("person","activity","number")
);
--> statement-breakpoint
ALTER TABLE "items" ADD COLUMN "enrolling" jsonb;--> statement-breakpoint
ALTER TABLE "items" ADD COLUMN "quiz" jsonb;--> statement-breakpoint
ALTER TABLE "quiz_attempts" ADD CONSTRAINT "quiz_attempts_person_people_id_fk" FOREIGN KEY ("person") REFERENCES "public"."people"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "quiz_attempts_under_way" ON "quiz_attempts" USING btree ("person","activity") WHERE "quiz_attempts"."finished" is null;--> statement-breakpoint
CREATE INDEX "quiz_attempts_activity" ON "quiz_attempts" USING btree ("activity");