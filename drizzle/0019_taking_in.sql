CREATE TABLE "takings" (
	"id" text PRIMARY KEY NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by" text NOT NULL,
	"summary" text NOT NULL,
	"items" jsonb NOT NULL,
	"formerly" jsonb NOT NULL,
	"first" jsonb NOT NULL,
	"undone" boolean DEFAULT false NOT NULL
);
