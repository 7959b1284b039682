CREATE TABLE "stock_count" (
	"place_id" uuid NOT NULL,
	"family" text NOT NULL,
	"in_set" boolean NOT NULL,
	"blocked" text,
	"due_from" date NOT NULL,
	"due_on" date NOT NULL,
	"items" integer NOT NULL
);
--> statement-breakpoint
-- Where an item stands and whether it is on a set, against the state that is kept of it.
CREATE FUNCTION count_moved_stock() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	INSERT INTO stock_count (place_id, family, in_set, blocked, due_from, due_on, items)
	SELECT i.place_id, i.family, i.in_set, s.blocked, s.due_from, s.due_on, sum(i.items)
	FROM (
		SELECT id, place_id, family, set_id IS NOT NULL AS in_set, -1 AS items FROM before
		UNION ALL
		SELECT id, place_id, family, set_id IS NOT NULL, 1 FROM after
	) i JOIN item_state s ON s.item_id = i.id
	GROUP BY 1, 2, 3, 4, 5, 6 HAVING sum(i.items) <> 0;
	RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER stock_moved AFTER UPDATE ON item
	REFERENCING OLD TABLE AS before NEW TABLE AS after
	FOR EACH STATEMENT EXECUTE FUNCTION count_moved_stock();
--> statement-breakpoint
CREATE FUNCTION count_new_states() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	INSERT INTO stock_count (place_id, family, in_set, blocked, due_from, due_on, items)
	SELECT i.place_id, i.family, i.set_id IS NOT NULL, s.blocked, s.due_from, s.due_on, count(*)
	FROM after s JOIN item i ON i.id = s.item_id
	GROUP BY 1, 2, 3, 4, 5, 6;
	RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER stock_added AFTER INSERT ON item_state
	REFERENCING NEW TABLE AS after
	FOR EACH STATEMENT EXECUTE FUNCTION count_new_states();
--> statement-breakpoint
CREATE FUNCTION count_changed_states() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	INSERT INTO stock_count (place_id, family, in_set, blocked, due_from, due_on, items)
	SELECT i.place_id, i.family, i.set_id IS NOT NULL, s.blocked, s.due_from, s.due_on, sum(s.items)
	FROM (
		SELECT item_id, blocked, due_from, due_on, -1 AS items FROM before
		UNION ALL
		SELECT item_id, blocked, due_from, due_on, 1 FROM after
	) s JOIN item i ON i.id = s.item_id
	GROUP BY 1, 2, 3, 4, 5, 6 HAVING sum(s.items) <> 0;
	RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER stock_changed AFTER UPDATE ON item_state
	REFERENCING OLD TABLE AS before NEW TABLE AS after
	FOR EACH STATEMENT EXECUTE FUNCTION count_changed_states();
--> statement-breakpoint
CREATE FUNCTION count_gone_states() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	INSERT INTO stock_count (place_id, family, in_set, blocked, due_from, due_on, items)
	SELECT i.place_id, i.family, i.set_id IS NOT NULL, s.blocked, s.due_from, s.due_on, -count(*)
	FROM before s JOIN item i ON i.id = s.item_id
	GROUP BY 1, 2, 3, 4, 5, 6;
	RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER stock_gone AFTER DELETE ON item_state
	REFERENCING OLD TABLE AS before
	FOR EACH STATEMENT EXECUTE FUNCTION count_gone_states();
--> statement-breakpoint
-- Everything counted anew, while nobody writes or draws together: rows drawn together beside it would be counted twice.
CREATE FUNCTION recount_stock() RETURNS void LANGUAGE plpgsql AS $$
BEGIN
	LOCK TABLE stock_count IN SHARE ROW EXCLUSIVE MODE;
	DELETE FROM stock_count;
	INSERT INTO stock_count (place_id, family, in_set, blocked, due_from, due_on, items)
	SELECT i.place_id, i.family, i.set_id IS NOT NULL, s.blocked, s.due_from, s.due_on, count(*)
	FROM item_state s JOIN item i ON i.id = s.item_id
	GROUP BY 1, 2, 3, 4, 5, 6;
END $$;
--> statement-breakpoint
SELECT recount_stock();
