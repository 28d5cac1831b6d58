CREATE TABLE "job_lines" (
	"job_id" uuid PRIMARY KEY NOT NULL,
	"version" integer NOT NULL,
	"engine" text NOT NULL,
	"day" text NOT NULL,
	"looms" integer NOT NULL,
	"wires" integer NOT NULL,
	"stops" integer NOT NULL,
	"checks" integer NOT NULL,
	"problem" text
);
--> statement-breakpoint
CREATE TABLE "tasks" (
	"id" uuid PRIMARY KEY NOT NULL,
	"kind" text NOT NULL,
	"input" json NOT NULL,
	"done" integer DEFAULT 0 NOT NULL,
	"of" integer DEFAULT 0 NOT NULL,
	"status" integer,
	"type" text,
	"name" text,
	"body" "bytea",
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "name" text GENERATED ALWAYS AS ((document ->> 'name')) STORED;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "customer" text GENERATED ALWAYS AS ((document ->> 'customer')) STORED;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "promised_on" text GENERATED ALWAYS AS ((document #>> '{brief,promisedOn}')) STORED;--> statement-breakpoint
ALTER TABLE "job_lines" ADD CONSTRAINT "job_lines_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE cascade ON UPDATE no action;