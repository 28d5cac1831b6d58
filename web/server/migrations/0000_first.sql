CREATE TABLE "edits" (
	"job_id" uuid NOT NULL,
	"version" integer NOT NULL,
	"id" uuid NOT NULL,
	"author" text NOT NULL,
	"label" text NOT NULL,
	"kind" text NOT NULL,
	"of_edit" uuid,
	"patch" json NOT NULL,
	"inverse" json NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "edits_job_id_version_pk" PRIMARY KEY("job_id","version"),
	CONSTRAINT "edits_id_unique" UNIQUE("id")
);
--> statement-breakpoint
CREATE TABLE "floor_events" (
	"serial" bigserial PRIMARY KEY NOT NULL,
	"id" uuid NOT NULL,
	"job_id" uuid NOT NULL,
	"release" integer NOT NULL,
	"loom_id" text NOT NULL,
	"step_id" text NOT NULL,
	"item_id" text NOT NULL,
	"kind" text NOT NULL,
	"words" text NOT NULL,
	"author" text NOT NULL,
	"happened_at" timestamp with time zone NOT NULL,
	"received_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "floor_events_id_unique" UNIQUE("id")
);
--> statement-breakpoint
CREATE TABLE "jobs" (
	"id" uuid PRIMARY KEY NOT NULL,
	"version" integer NOT NULL,
	"document" json NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"changed_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "releases" (
	"job_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"id" uuid NOT NULL,
	"version" integer NOT NULL,
	"document" json NOT NULL,
	"author" text NOT NULL,
	"note" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "releases_job_id_number_pk" PRIMARY KEY("job_id","number"),
	CONSTRAINT "releases_id_unique" UNIQUE("id")
);
--> statement-breakpoint
ALTER TABLE "edits" ADD CONSTRAINT "edits_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "releases" ADD CONSTRAINT "releases_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "floor_events_of" ON "floor_events" USING btree ("job_id","release","loom_id");