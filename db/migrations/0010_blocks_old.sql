ALTER TABLE "plan_override" DISABLE ROW LEVEL SECURITY;--> statement-breakpoint
DROP TABLE "plan_override" CASCADE;--> statement-breakpoint
ALTER TABLE "plan" DROP CONSTRAINT "plan_team_id_variant_id_lift_variant_team_id_id_fk";
--> statement-breakpoint
ALTER TABLE "plan" ALTER COLUMN "block" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "plan" DROP COLUMN "variant_id";--> statement-breakpoint
ALTER TABLE "plan" DROP COLUMN "recipe";