CREATE TABLE "snapshot_texts" (
	"snapshot" bigint NOT NULL,
	"place" integer NOT NULL,
	"texts" text NOT NULL,
	CONSTRAINT "snapshot_texts_snapshot_place_pk" PRIMARY KEY("snapshot","place")
);
--> statement-breakpoint
CREATE TABLE "snapshots" (
	"id" bigint PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "snapshots_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1),
	"way" text NOT NULL,
	"number" bigint,
	"size" integer NOT NULL,
	"made" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "snapshot_texts" ADD CONSTRAINT "snapshot_texts_snapshot_snapshots_id_fk" FOREIGN KEY ("snapshot") REFERENCES "public"."snapshots"("id") ON DELETE cascade ON UPDATE no action;