/**
 * One database for many tests: what is in it is kept in a schema of its own, and put back when the next test takes it.
 * Opening another one takes a hundred times as long. Only the tables that a test wrote to are put back.
 */
import type { Database } from '@/store';

/** Keeps everything that is in a database now, to be put back. */
export async function keep(db: Database): Promise<void> {
  await db.execute(KEEP);
}

/** Puts back what was kept. */
export async function putBack(db: Database): Promise<void> {
  await db.execute('SELECT kept.put_back()');
}

const KEEP = `
DO $keep$
DECLARE one record;
BEGIN
  CREATE SCHEMA kept;
  CREATE TABLE kept.touched (name text PRIMARY KEY);
  CREATE TABLE kept.numbers (sequence text PRIMARY KEY, last bigint);
  CREATE FUNCTION kept.touch() RETURNS trigger LANGUAGE plpgsql AS $touch$
  BEGIN
    INSERT INTO kept.touched VALUES (TG_TABLE_NAME) ON CONFLICT DO NOTHING;
    RETURN NULL;
  END $touch$;
  FOR one IN SELECT tablename AS name FROM pg_tables WHERE schemaname = 'public' LOOP
    EXECUTE format('CREATE TABLE kept.%I AS TABLE public.%I', 'all ' || one.name, one.name);
    EXECUTE format('CREATE TRIGGER touched AFTER INSERT OR UPDATE OR DELETE OR TRUNCATE ON public.%I '
      'FOR EACH STATEMENT EXECUTE FUNCTION kept.touch()', one.name);
  END LOOP;
  INSERT INTO kept.numbers SELECT sequencename, last_value FROM pg_sequences WHERE schemaname = 'public';
  CREATE FUNCTION kept.put_back() RETURNS void LANGUAGE plpgsql AS $back$
  DECLARE one record; columns text;
  BEGIN
    -- Neither foreign keys nor the triggers above have anything to say while everything is put back at once.
    SET LOCAL session_replication_role = replica;
    FOR one IN SELECT name FROM kept.touched LOOP
      SELECT string_agg(quote_ident(column_name), ', ' ORDER BY ordinal_position) INTO columns
        FROM information_schema.columns
        WHERE table_schema = 'public' AND table_name = one.name AND is_generated = 'NEVER';
      EXECUTE format('DELETE FROM public.%I', one.name);
      EXECUTE format('INSERT INTO public.%1$I (%2$s) OVERRIDING SYSTEM VALUE SELECT %2$s FROM kept.%3$I',
        one.name, columns, 'all ' || one.name);
    END LOOP;
    DELETE FROM kept.touched;
    PERFORM setval(('public.' || quote_ident(sequence))::regclass, coalesce(last, 1), last IS NOT NULL) FROM kept.numbers;
  END $back$;
END $keep$;`;
