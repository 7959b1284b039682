CREATE TABLE "part_level" (
	"part" text PRIMARY KEY NOT NULL,
	"reorder_level" integer NOT NULL,
	CONSTRAINT "part_level_size" CHECK ("part_level"."reorder_level" between 0 and 100000)
);
