CREATE TABLE "material_history" (
	"id" text NOT NULL,
	"revision" integer NOT NULL,
	"material" jsonb NOT NULL,
	"changed_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "material_history_id_revision_changed_at_pk" PRIMARY KEY("id","revision","changed_at")
);
--> statement-breakpoint
CREATE TABLE "moulds" (
	"id" text PRIMARY KEY NOT NULL,
	"revision" integer NOT NULL,
	"mould" jsonb NOT NULL
);
--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "is_archived" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "deleted_at" timestamp with time zone;--> statement-breakpoint
INSERT INTO "material_history" ("id", "revision", "material") SELECT "id", "revision", "material" FROM "materials";
