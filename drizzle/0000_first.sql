CREATE TABLE "boards" (
	"person" text PRIMARY KEY NOT NULL,
	"stand_ins" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "groups" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"private" boolean DEFAULT false NOT NULL,
	CONSTRAINT "groups_name_unique" UNIQUE("name")
);
--> statement-breakpoint
CREATE TABLE "items" (
	"id" text PRIMARY KEY NOT NULL,
	"kind" text NOT NULL,
	"parent" text,
	"rank" integer NOT NULL,
	"title" text NOT NULL,
	"published" boolean DEFAULT true NOT NULL,
	"address" text,
	"place" text,
	"target" jsonb,
	"summary" text DEFAULT '' NOT NULL,
	"body" text DEFAULT '' NOT NULL,
	CONSTRAINT "items_address_unique" UNIQUE("address")
);
--> statement-breakpoint
CREATE TABLE "levels" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"rank" integer NOT NULL,
	CONSTRAINT "levels_name_unique" UNIQUE("name"),
	CONSTRAINT "levels_rank_unique" UNIQUE("rank")
);
--> statement-breakpoint
CREATE TABLE "people" (
	"id" text PRIMARY KEY NOT NULL,
	"email" text NOT NULL,
	"name" text NOT NULL,
	"password_hash" text,
	"level" text,
	"desk" boolean DEFAULT false NOT NULL,
	CONSTRAINT "people_email_unique" UNIQUE("email")
);
--> statement-breakpoint
CREATE TABLE "person_groups" (
	"person" text NOT NULL,
	"group_id" text NOT NULL,
	CONSTRAINT "person_groups_person_group_id_pk" PRIMARY KEY("person","group_id")
);
--> statement-breakpoint
CREATE TABLE "person_roles" (
	"person" text NOT NULL,
	"role" text NOT NULL,
	CONSTRAINT "person_roles_person_role_pk" PRIMARY KEY("person","role")
);
--> statement-breakpoint
CREATE TABLE "policy_state" (
	"id" integer PRIMARY KEY DEFAULT 1 NOT NULL,
	"draft" jsonb NOT NULL,
	"draft_version" integer DEFAULT 1 NOT NULL,
	"draft_by" text NOT NULL,
	"live" integer NOT NULL,
	CONSTRAINT "only_one" CHECK ("policy_state"."id" = 1)
);
--> statement-breakpoint
CREATE TABLE "revisions" (
	"number" integer PRIMARY KEY NOT NULL,
	"policy" jsonb NOT NULL,
	"author" text NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"gained" integer DEFAULT 0 NOT NULL,
	"lost" integer DEFAULT 0 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "roles" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	CONSTRAINT "roles_name_unique" UNIQUE("name")
);
--> statement-breakpoint
CREATE TABLE "sessions" (
	"token_hash" text PRIMARY KEY NOT NULL,
	"person" text NOT NULL,
	"expires_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "sign_in_attempts" (
	"key" text PRIMARY KEY NOT NULL,
	"count" integer NOT NULL,
	"window_ends" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "walks" (
	"token_hash" text PRIMARY KEY NOT NULL,
	"session" text NOT NULL,
	"stand_in" jsonb NOT NULL,
	"side" text NOT NULL,
	"expires_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
ALTER TABLE "boards" ADD CONSTRAINT "boards_person_people_id_fk" FOREIGN KEY ("person") REFERENCES "public"."people"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "people" ADD CONSTRAINT "people_level_levels_id_fk" FOREIGN KEY ("level") REFERENCES "public"."levels"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "person_groups" ADD CONSTRAINT "person_groups_person_people_id_fk" FOREIGN KEY ("person") REFERENCES "public"."people"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "person_groups" ADD CONSTRAINT "person_groups_group_id_groups_id_fk" FOREIGN KEY ("group_id") REFERENCES "public"."groups"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "person_roles" ADD CONSTRAINT "person_roles_person_people_id_fk" FOREIGN KEY ("person") REFERENCES "public"."people"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "person_roles" ADD CONSTRAINT "person_roles_role_roles_id_fk" FOREIGN KEY ("role") REFERENCES "public"."roles"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "policy_state" ADD CONSTRAINT "policy_state_live_revisions_number_fk" FOREIGN KEY ("live") REFERENCES "public"."revisions"("number") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sessions" ADD CONSTRAINT "sessions_person_people_id_fk" FOREIGN KEY ("person") REFERENCES "public"."people"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "walks" ADD CONSTRAINT "walks_session_sessions_token_hash_fk" FOREIGN KEY ("session") REFERENCES "public"."sessions"("token_hash") ON DELETE cascade ON UPDATE no action;