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
DROP TABLE "courses" CASCADE;--> statement-breakpoint
-- What is kept of people elsewhere is written anew as well: changes that can be taken back, and visitors who were made up.
CREATE FUNCTION "with_items"(r jsonb) RETURNS jsonb LANGUAGE sql AS $$
  SELECT CASE WHEN jsonb_typeof(r) <> 'object' THEN r ELSE r
    || CASE WHEN jsonb_typeof(r->'completions') = 'array' THEN jsonb_build_object('completions', (
      SELECT coalesce(jsonb_agg((c - 'activity') || jsonb_build_object('item', c->'activity') ORDER BY n), '[]')
      FROM jsonb_array_elements(r->'completions') WITH ORDINALITY AS list(c, n))) ELSE '{}' END
    || CASE WHEN jsonb_typeof(r->'enrolments') = 'array' THEN jsonb_build_object('enrolments', (
      SELECT coalesce(jsonb_agg(e || '{"until": null}' ORDER BY n), '[]')
      FROM jsonb_array_elements(r->'enrolments') WITH ORDINALITY AS list(e, n))) ELSE '{}' END
  END
$$;--> statement-breakpoint
CREATE FUNCTION "stand_in_with_items"(s jsonb) RETURNS jsonb LANGUAGE sql AS $$
  SELECT CASE WHEN jsonb_typeof(s->'madeUp'->'facts') = 'object'
    THEN jsonb_set(s, '{madeUp,facts}', "with_items"(s->'madeUp'->'facts')) ELSE s END
$$;--> statement-breakpoint
CREATE FUNCTION "stand_ins_with_items"(list jsonb) RETURNS jsonb LANGUAGE sql AS $$
  SELECT coalesce(jsonb_agg("stand_in_with_items"(s) ORDER BY n), '[]')
  FROM jsonb_array_elements(list) WITH ORDINALITY AS each(s, n)
$$;--> statement-breakpoint
UPDATE "people_changes" SET "people" = (
  SELECT coalesce(jsonb_agg(jsonb_build_object('before', "with_items"(c->'before'), 'after', "with_items"(c->'after')) ORDER BY n), '[]')
  FROM jsonb_array_elements("people") WITH ORDINALITY AS list(c, n));--> statement-breakpoint
UPDATE "people_changes" SET "names" = jsonb_build_object(
  'before', ("names"->'before') - 'courses' - 'activities', 'after', ("names"->'after') - 'courses' - 'activities')
WHERE jsonb_typeof("names") = 'object';--> statement-breakpoint
UPDATE "boards" SET "stand_ins" = "stand_ins_with_items"("stand_ins");--> statement-breakpoint
UPDATE "board_sets" SET "stand_ins" = "stand_ins_with_items"("stand_ins");--> statement-breakpoint
UPDATE "walks" SET "stand_in" = "stand_in_with_items"("stand_in");--> statement-breakpoint
DROP FUNCTION "stand_ins_with_items"(jsonb);--> statement-breakpoint
DROP FUNCTION "stand_in_with_items"(jsonb);--> statement-breakpoint
DROP FUNCTION "with_items"(jsonb);
