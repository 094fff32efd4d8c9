CREATE TABLE "area_steps" (
	"id" text PRIMARY KEY NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by" text NOT NULL,
	"summary" text NOT NULL,
	"step" jsonb NOT NULL,
	"undone" boolean DEFAULT false NOT NULL
);
--> statement-breakpoint
CREATE TABLE "area_visits" (
	"page" text PRIMARY KEY NOT NULL,
	"on" date NOT NULL
);
