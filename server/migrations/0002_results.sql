CREATE TABLE "results" (
	"job_id" text NOT NULL,
	"layout_id" text NOT NULL,
	"key" text NOT NULL,
	"outcome" jsonb NOT NULL,
	CONSTRAINT "results_job_id_layout_id_pk" PRIMARY KEY("job_id","layout_id")
);
--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "name" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "process" text DEFAULT 'infusion' NOT NULL;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "sketch" jsonb;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "mould_id" text;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "material_ids" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "current_layout_id" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "result_key" text;--> statement-breakpoint
ALTER TABLE "results" ADD CONSTRAINT "results_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE cascade ON UPDATE no action;