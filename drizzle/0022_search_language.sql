ALTER TABLE "search_texts" ADD COLUMN "config" "regconfig" DEFAULT 'english' NOT NULL;--> statement-breakpoint
ALTER TABLE "search_texts" drop column "words";--> statement-breakpoint
ALTER TABLE "search_texts" ADD COLUMN "words" "tsvector" GENERATED ALWAYS AS (to_tsvector(config, text)) STORED NOT NULL;--> statement-breakpoint
CREATE INDEX "search_words" ON "search_texts" USING gin ("words");
