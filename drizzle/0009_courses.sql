ALTER TABLE "enrolments" ADD COLUMN "until" date;--> statement-breakpoint
ALTER TABLE "items" ADD COLUMN "activity" text;--> statement-breakpoint
ALTER TABLE "completions" DROP CONSTRAINT "completions_activity_activities_id_fk";--> statement-breakpoint
ALTER TABLE "enrolments" DROP CONSTRAINT "enrolments_course_courses_id_fk";--> statement-breakpoint
-- What were names become items with the same ids, which nobody sees until somebody has written and published them. An address
-- that is taken, or that an id can't stand in, is made of the id's digest.
INSERT INTO "items" ("id", "kind", "parent", "rank", "title", "published", "address")
SELECT c."id", 'course', site."id", 1000000 + row_number() OVER (ORDER BY c."name"), c."name", false,
  '/courses/' || CASE
    WHEN c."id" ~ '^[a-z0-9]+(-[a-z0-9]+)*$'
      AND NOT EXISTS (SELECT 1 FROM "items" i WHERE i."address" = '/courses/' || c."id")
      AND NOT EXISTS (SELECT 1 FROM "old_addresses" o WHERE o."address" = '/courses/' || c."id")
    THEN c."id" ELSE md5(c."id") END
FROM "courses" c, (SELECT "id" FROM "items" WHERE "kind" = 'site') site
WHERE NOT EXISTS (SELECT 1 FROM "items" i WHERE i."id" = c."id");--> statement-breakpoint
WITH "together" AS (
  INSERT INTO "items" ("id", "kind", "parent", "rank", "title", "published", "address")
  SELECT gen_random_uuid()::text, 'course', site."id", 2000000, 'Activities', false,
    '/courses/activities-' || substr(md5(site."id"), 1, 8)
  FROM (SELECT "id" FROM "items" WHERE "kind" = 'site') site
  WHERE EXISTS (SELECT 1 FROM "activities")
  RETURNING "id", "address"
), "unit" AS (
  INSERT INTO "items" ("id", "kind", "parent", "rank", "title", "published")
  SELECT gen_random_uuid()::text, 'unit', "id", 0, 'Activities', false FROM "together"
  RETURNING "id"
)
INSERT INTO "items" ("id", "kind", "parent", "rank", "title", "published", "address", "activity")
SELECT a."id", 'activity', "unit"."id", row_number() OVER (ORDER BY a."name"), a."name", false,
  "together"."address" || '/' || CASE WHEN a."id" ~ '^[a-z0-9]+(-[a-z0-9]+)*$' THEN a."id" ELSE md5(a."id") END,
  'reading'
FROM "activities" a, "together", "unit"
WHERE NOT EXISTS (SELECT 1 FROM "items" i WHERE i."id" = a."id");--> statement-breakpoint
DROP TABLE "activities" CASCADE;--> statement-breakpoint
DROP TABLE "courses" CASCADE;
