DROP TABLE "complex_entry" CASCADE;--> statement-breakpoint
DROP TABLE "complex_run" CASCADE;