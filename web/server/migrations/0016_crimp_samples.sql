CREATE TABLE "tool_crimps" (
	"tool" text NOT NULL,
	"day" date NOT NULL,
	"crimps" integer NOT NULL,
	CONSTRAINT "tool_crimps_tool_day_pk" PRIMARY KEY("tool","day")
);
--> statement-breakpoint
ALTER TABLE "floor_events" ADD COLUMN "samples" jsonb;