CREATE TABLE "release_looms" (
	"job_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"loom_id" text NOT NULL,
	"place" integer NOT NULL,
	"wires" integer NOT NULL,
	"engine" text NOT NULL,
	"shop" text NOT NULL,
	"work" "bytea" NOT NULL,
	"pages" "bytea" NOT NULL,
	CONSTRAINT "release_looms_job_id_number_loom_id_pk" PRIMARY KEY("job_id","number","loom_id")
);
--> statement-breakpoint
ALTER TABLE "release_looms" ADD CONSTRAINT "release_looms_job_id_number_releases_job_id_number_fk" FOREIGN KEY ("job_id","number") REFERENCES "public"."releases"("job_id","number") ON DELETE cascade ON UPDATE no action;