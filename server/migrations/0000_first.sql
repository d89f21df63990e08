CREATE TABLE "jobs" (
	"id" text PRIMARY KEY NOT NULL,
	"revision" integer NOT NULL,
	"document" jsonb NOT NULL,
	"verdict" jsonb,
	"changed_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "materials" (
	"id" text PRIMARY KEY NOT NULL,
	"revision" integer NOT NULL,
	"material" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "shop" (
	"id" integer PRIMARY KEY NOT NULL,
	"revision" integer NOT NULL,
	"shop" jsonb NOT NULL
);
