CREATE TABLE "shop_versions" (
	"version" integer PRIMARY KEY NOT NULL,
	"id" uuid NOT NULL,
	"author" text NOT NULL,
	"note" text NOT NULL,
	"document" json NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "shop_versions_id_unique" UNIQUE("id")
);
