CREATE TABLE "audit" (
	"order" bigserial PRIMARY KEY NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"what" text NOT NULL,
	"device" text,
	"address" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "devices" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"access" text NOT NULL,
	"link_id" text,
	"word_hash" text NOT NULL,
	"earlier_hash" text,
	"has_shown_word" boolean DEFAULT false NOT NULL,
	"word_since" timestamp with time zone DEFAULT now() NOT NULL,
	"added_at" timestamp with time zone DEFAULT now() NOT NULL,
	"seen_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "facts" (
	"name" text PRIMARY KEY NOT NULL,
	"value" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "job_revisions" (
	"job_id" text NOT NULL,
	"revision" integer NOT NULL,
	"changed_at" timestamp with time zone NOT NULL,
	"document" jsonb NOT NULL,
	CONSTRAINT "job_revisions_job_id_revision_pk" PRIMARY KEY("job_id","revision")
);
--> statement-breakpoint
ALTER TABLE "material_history" DROP CONSTRAINT "material_history_id_revision_changed_at_pk";--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "deleted_days" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "material_history" ADD COLUMN "order" bigserial NOT NULL;--> statement-breakpoint
UPDATE "material_history" AS "own" SET "order" = "sorted"."place" FROM (SELECT ctid, row_number() OVER (ORDER BY "changed_at", "revision") AS "place" FROM "material_history") AS "sorted" WHERE "own".ctid = "sorted".ctid;--> statement-breakpoint
ALTER TABLE "material_history" ADD CONSTRAINT "material_history_order_pk" PRIMARY KEY("order");--> statement-breakpoint
ALTER TABLE "job_revisions" ADD CONSTRAINT "job_revisions_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "material_history_id" ON "material_history" USING btree ("id");