CREATE TABLE "notices" (
	"id" text PRIMARY KEY NOT NULL,
	"number" integer GENERATED ALWAYS AS IDENTITY (sequence name "notices_number_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"order_id" text NOT NULL,
	"came" timestamp with time zone NOT NULL,
	"said" jsonb NOT NULL,
	"problem" text DEFAULT '' NOT NULL
);
--> statement-breakpoint
CREATE TABLE "order_letters" (
	"order_id" text NOT NULL,
	"what" text NOT NULL,
	"on" date NOT NULL,
	CONSTRAINT "order_letters_order_id_what_on_pk" PRIMARY KEY("order_id","what","on")
);
--> statement-breakpoint
CREATE TABLE "orders" (
	"id" text PRIMARY KEY NOT NULL,
	"product" text NOT NULL,
	"product_name" text NOT NULL,
	"person" text,
	"email" text NOT NULL,
	"name" text NOT NULL,
	"price" text NOT NULL,
	"agreed" jsonb NOT NULL,
	"voucher" text,
	"replaces" jsonb,
	"back" text DEFAULT '/' NOT NULL,
	"session" text,
	"made_account" boolean DEFAULT false NOT NULL,
	"reference" text,
	"pay_page" text,
	"made" timestamp with time zone NOT NULL,
	"pay_until" timestamp with time zone NOT NULL,
	"asked_at" timestamp with time zone,
	"state" jsonb NOT NULL,
	"open" boolean DEFAULT true NOT NULL,
	"due" jsonb DEFAULT '[]'::jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "places" (
	"of" text NOT NULL,
	"number" integer NOT NULL,
	"order_id" text NOT NULL,
	"held_until" timestamp with time zone,
	CONSTRAINT "places_of_number_pk" PRIMARY KEY("of","number")
);
--> statement-breakpoint
CREATE TABLE "product_terms" (
	"product" text PRIMARY KEY NOT NULL,
	"terms" jsonb NOT NULL,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "vouchers" (
	"id" text PRIMARY KEY NOT NULL,
	"code" text NOT NULL,
	"products" jsonb NOT NULL,
	"percent" integer NOT NULL,
	"times" integer NOT NULL,
	"until" date,
	"note" text DEFAULT '' NOT NULL,
	"open" boolean DEFAULT true NOT NULL,
	CONSTRAINT "vouchers_code_unique" UNIQUE("code")
);
--> statement-breakpoint
ALTER TABLE "settings" ADD COLUMN "grace_days" integer DEFAULT 7 NOT NULL;--> statement-breakpoint
ALTER TABLE "settings" ADD COLUMN "clock_ahead" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "product_terms" ADD CONSTRAINT "product_terms_product_products_id_fk" FOREIGN KEY ("product") REFERENCES "public"."products"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "notices_order" ON "notices" USING btree ("order_id");--> statement-breakpoint
CREATE INDEX "notices_problem" ON "notices" USING btree ("problem");--> statement-breakpoint
CREATE UNIQUE INDEX "orders_open" ON "orders" USING btree ("email","product") WHERE "orders"."open";--> statement-breakpoint
CREATE INDEX "orders_person" ON "orders" USING btree ("person");--> statement-breakpoint
CREATE INDEX "orders_product" ON "orders" USING btree ("product");--> statement-breakpoint
CREATE INDEX "orders_made" ON "orders" USING btree ("made");--> statement-breakpoint
CREATE UNIQUE INDEX "places_order" ON "places" USING btree ("of","order_id");