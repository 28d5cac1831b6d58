CREATE TABLE "job_plans" (
	"job_id" uuid PRIMARY KEY NOT NULL,
	"version" integer NOT NULL,
	"engine" text NOT NULL,
	"day" text NOT NULL,
	"planned" "bytea" NOT NULL
);
--> statement-breakpoint
ALTER TABLE "job_plans" ADD CONSTRAINT "job_plans_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE cascade ON UPDATE no action;
--> statement-breakpoint
-- counted anew at the start, with their plans
DELETE FROM "job_lines";
