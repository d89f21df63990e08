CREATE TABLE "photos" (
	"run_id" text NOT NULL,
	"id" text NOT NULL,
	"added_at" timestamp with time zone DEFAULT now() NOT NULL,
	"width" integer NOT NULL,
	"height" integer NOT NULL,
	"byte_count" integer NOT NULL,
	CONSTRAINT "photos_run_id_id_pk" PRIMARY KEY("run_id","id")
);
--> statement-breakpoint
CREATE TABLE "run_plans" (
	"run_id" text NOT NULL,
	"number" integer NOT NULL,
	"taken_at" timestamp with time zone DEFAULT now() NOT NULL,
	"plan" jsonb NOT NULL,
	CONSTRAINT "run_plans_run_id_number_pk" PRIMARY KEY("run_id","number")
);
--> statement-breakpoint
CREATE TABLE "step_libraries" (
	"revision" integer PRIMARY KEY NOT NULL,
	"changed_at" timestamp with time zone DEFAULT now() NOT NULL,
	"by" text NOT NULL,
	"steps" jsonb NOT NULL
);
--> statement-breakpoint
ALTER TABLE "photos" ADD CONSTRAINT "photos_run_id_runs_id_fk" FOREIGN KEY ("run_id") REFERENCES "public"."runs"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "run_plans" ADD CONSTRAINT "run_plans_run_id_runs_id_fk" FOREIGN KEY ("run_id") REFERENCES "public"."runs"("id") ON DELETE cascade ON UPDATE no action;