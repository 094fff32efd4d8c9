CREATE TABLE "changes" (
	"number" bigint PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "changes_number_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1),
	"part" text NOT NULL,
	"id" text
);
--> statement-breakpoint
-- Whatever is written to what a site is made of is noted here, whoever writes it: what is noted can't be forgotten. A change
-- of everything at once says so beforehand, and is one entry.
CREATE FUNCTION note_changes() RETURNS trigger LANGUAGE plpgsql AS $note$
BEGIN
  IF current_setting('trivet.noted', true) = 'everything' THEN
    RETURN NULL;
  END IF;
  IF TG_NARGS = 1 THEN
    INSERT INTO changes (part) SELECT TG_ARGV[0] WHERE EXISTS (SELECT FROM after) LIMIT 1;
  ELSIF TG_OP = 'UPDATE' THEN
    EXECUTE format(
      'INSERT INTO changes (part, id) SELECT %1$L, %2$I FROM after WHERE %2$I IS NOT NULL '
      'UNION SELECT %1$L, %2$I FROM before WHERE %2$I IS NOT NULL', TG_ARGV[0], TG_ARGV[1]);
  ELSE
    EXECUTE format(
      'INSERT INTO changes (part, id) SELECT DISTINCT %1$L, %2$I FROM after WHERE %2$I IS NOT NULL',
      TG_ARGV[0], TG_ARGV[1]);
  END IF;
  RETURN NULL;
END $note$;
--> statement-breakpoint
DO $triggers$
DECLARE one record;
BEGIN
  FOR one IN SELECT name, concat_ws(', ', quote_literal(part), quote_literal(id)) AS noted FROM (VALUES
    ('people', 'people', 'id'), ('person_roles', 'people', 'person'), ('person_groups', 'people', 'person'),
    ('purchases', 'people', 'person'), ('enrolments', 'people', 'person'), ('completions', 'people', 'person'),
    ('orders', 'people', 'person'), ('items', 'items', 'id'), ('file_bytes', 'items', 'item'),
    ('old_addresses', 'addresses', NULL),
    ('levels', 'names', NULL), ('roles', 'names', NULL), ('groups', 'names', NULL), ('products', 'names', NULL),
    ('fields', 'names', NULL), ('passphrases', 'names', NULL), ('product_terms', 'shop', NULL), ('places', 'shop', NULL),
    ('settings', 'settings', NULL), ('revisions', 'policies', NULL), ('policy_state', 'policies', NULL)
  ) AS made (name, part, id) LOOP
    EXECUTE format('CREATE TRIGGER note_insert AFTER INSERT ON %I REFERENCING NEW TABLE AS after '
      'FOR EACH STATEMENT EXECUTE FUNCTION note_changes(%s)', one.name, one.noted);
    EXECUTE format('CREATE TRIGGER note_update AFTER UPDATE ON %I REFERENCING OLD TABLE AS before NEW TABLE AS after '
      'FOR EACH STATEMENT EXECUTE FUNCTION note_changes(%s)', one.name, one.noted);
    EXECUTE format('CREATE TRIGGER note_delete AFTER DELETE ON %I REFERENCING OLD TABLE AS after '
      'FOR EACH STATEMENT EXECUTE FUNCTION note_changes(%s)', one.name, one.noted);
  END LOOP;
END $triggers$;
