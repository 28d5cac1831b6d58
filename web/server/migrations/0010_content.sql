ALTER TABLE "edits" ADD COLUMN "hash" text;--> statement-breakpoint
ALTER TABLE "floor_events" ADD COLUMN "device" uuid;--> statement-breakpoint
ALTER TABLE "floor_events" ADD COLUMN "after" bigint;--> statement-breakpoint
ALTER TABLE "floor_events" ADD COLUMN "hash" text;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "hash" text;--> statement-breakpoint
ALTER TABLE "photos" ADD COLUMN "hash" text;--> statement-breakpoint
CREATE INDEX "edits_by" ON "edits" USING btree ("job_id","author","version");--> statement-breakpoint
CREATE INDEX "floor_events_after" ON "floor_events" USING btree ("job_id","release","serial");