ALTER TABLE "floor_events" ADD COLUMN "read_id" text;--> statement-breakpoint
ALTER TABLE "floor_events" ADD COLUMN "value" double precision;--> statement-breakpoint
ALTER TABLE "floor_events" ADD COLUMN "unit" text;--> statement-breakpoint
ALTER TABLE "floor_events" ADD COLUMN "instrument" text;