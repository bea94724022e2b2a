ALTER TABLE "ladder_mark" ADD COLUMN "load" jsonb;--> statement-breakpoint
ALTER TABLE "ladder_mark" ADD COLUMN "variant_id" uuid;--> statement-breakpoint
ALTER TABLE "ladder_mark" ADD CONSTRAINT "ladder_mark_team_id_variant_id_lift_variant_team_id_id_fk" FOREIGN KEY ("team_id","variant_id") REFERENCES "public"."lift_variant"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "ladder_mark" ADD CONSTRAINT "ladder_mark_found" CHECK (("ladder_mark"."load" IS NULL) = ("ladder_mark"."variant_id" IS NULL));