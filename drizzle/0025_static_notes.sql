-- What notes a write to the log was put together and planned with every write. Now there is a function for each part and each
-- column that says what of it was written, which the database plans once: a completed activity takes a third less to write.
DO $notes$
DECLARE one record;
BEGIN
  FOR one IN
    SELECT part, id, 'note_' || concat_ws('_', part, id) AS name,
      array_agg(tgrelid::regclass::text) AS tables, array_agg(tgname::text) AS triggers,
      array_agg(split_part(definition, 'EXECUTE FUNCTION ', 1)) AS definitions
    FROM (
      SELECT tgrelid, tgname, definition, noted[1] AS part, noted[2] AS id
      FROM (
        SELECT tgrelid, tgname, pg_get_triggerdef(oid) AS definition FROM pg_trigger WHERE tgfoid = 'note_changes'::regproc
      ) made, LATERAL regexp_match(definition, 'note_changes\(''(\w+)''(?:, ''(\w+)'')?\)') AS noted
    ) told
    GROUP BY part, id
  LOOP
    EXECUTE format(
      'CREATE FUNCTION %I() RETURNS trigger LANGUAGE plpgsql AS %L', one.name,
      'BEGIN IF current_setting(''trivet.noted'', true) = ''everything'' THEN RETURN NULL; END IF; ' ||
      CASE WHEN one.id IS NULL THEN
        format('INSERT INTO changes (part) SELECT %L WHERE EXISTS (SELECT FROM after) LIMIT 1;', one.part)
      ELSE
        format(
          'IF TG_OP = ''UPDATE'' THEN '
          'INSERT INTO changes (part, id) SELECT %1$L, %2$I FROM after WHERE %2$I IS NOT NULL '
          'UNION SELECT %1$L, %2$I FROM before WHERE %2$I IS NOT NULL; '
          'ELSE INSERT INTO changes (part, id) SELECT DISTINCT %1$L, %2$I FROM after WHERE %2$I IS NOT NULL; END IF;',
          one.part, one.id)
      END || ' RETURN NULL; END');
    FOR at IN 1 .. array_length(one.tables, 1) LOOP
      EXECUTE format('DROP TRIGGER %I ON %s', one.triggers[at], one.tables[at]);
      EXECUTE one.definitions[at] || format('EXECUTE FUNCTION %I()', one.name);
    END LOOP;
  END LOOP;
  DROP FUNCTION note_changes();
END $notes$;
