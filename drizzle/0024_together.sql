-- Several processes may have a database together. An entry of the log has its number before its transaction is over; so that
-- whoever knows one number knows all before it, one transaction at a time writes to the log. Those who listen are told of it.
CREATE FUNCTION note_in_order() RETURNS trigger LANGUAGE plpgsql AS $note$
BEGIN
  PERFORM pg_advisory_xact_lock(7303);
  RETURN NULL;
END $note$;
--> statement-breakpoint
CREATE FUNCTION note_aloud() RETURNS trigger LANGUAGE plpgsql AS $note$
BEGIN
  IF EXISTS (SELECT FROM after) THEN
    PERFORM pg_notify('trivet_changes', '');
  END IF;
  RETURN NULL;
END $note$;
--> statement-breakpoint
CREATE TRIGGER in_order BEFORE INSERT ON changes FOR EACH STATEMENT EXECUTE FUNCTION note_in_order();
--> statement-breakpoint
CREATE TRIGGER aloud AFTER INSERT ON changes REFERENCING NEW TABLE AS after
  FOR EACH STATEMENT EXECUTE FUNCTION note_aloud();
--> statement-breakpoint
-- A session that is ended or changed on one process, and a key that is taken back, are known by others.
CREATE TRIGGER note_update AFTER UPDATE ON sessions REFERENCING OLD TABLE AS before NEW TABLE AS after
  FOR EACH STATEMENT EXECUTE FUNCTION note_changes('sessions', 'token_hash');
--> statement-breakpoint
CREATE TRIGGER note_delete AFTER DELETE ON sessions REFERENCING OLD TABLE AS after
  FOR EACH STATEMENT EXECUTE FUNCTION note_changes('sessions', 'token_hash');
--> statement-breakpoint
CREATE TRIGGER note_delete AFTER DELETE ON keys REFERENCING OLD TABLE AS after
  FOR EACH STATEMENT EXECUTE FUNCTION note_changes('keys', 'hash');
