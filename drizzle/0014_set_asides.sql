CREATE TABLE "set_asides" (
	"finding" text PRIMARY KEY NOT NULL,
	"about" jsonb NOT NULL,
	"reason" text NOT NULL,
	"by" text NOT NULL,
	"at" timestamp with time zone NOT NULL
);
