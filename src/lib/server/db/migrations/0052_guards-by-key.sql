-- The run of an answer is found by its key and looked at then. With the condition in the question the database may
-- choose the small index of runs that are open, and read all of that for every answer: while a record is brought in,
-- that is every run.
CREATE OR REPLACE FUNCTION refuse_answer_after_signing() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
	run record;
BEGIN
	-- The lock makes an answer and a signature on the same run wait for each other.
	SELECT signed_at INTO run FROM inspection_run WHERE id = NEW.run_id FOR UPDATE;
	IF NOT FOUND OR run.signed_at IS NOT NULL THEN
		RAISE EXCEPTION 'the inspection is signed or does not exist' USING ERRCODE = 'restrict_violation';
	END IF;
	RETURN NEW;
END $$;
