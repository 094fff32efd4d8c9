ALTER TABLE "file_bytes" ADD COLUMN "digest" "bytea" GENERATED ALWAYS AS (sha256(bytes)) STORED;--> statement-breakpoint
-- Uncompressed, so that reading a part reads that part; what is there already is written anew.
ALTER TABLE "file_bytes" ALTER COLUMN "bytes" SET STORAGE EXTERNAL;
--> statement-breakpoint
UPDATE "file_bytes" SET "bytes" = "bytes" || ''::bytea;
