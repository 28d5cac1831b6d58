CREATE TABLE "release_power" (
	"job_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"sheet" "bytea",
	CONSTRAINT "release_power_job_id_number_pk" PRIMARY KEY("job_id","number")
);
--> statement-breakpoint
ALTER TABLE "release_power" ADD CONSTRAINT "release_power_job_id_number_releases_job_id_number_fk" FOREIGN KEY ("job_id","number") REFERENCES "public"."releases"("job_id","number") ON DELETE cascade ON UPDATE no action;