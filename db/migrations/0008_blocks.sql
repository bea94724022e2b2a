CREATE TABLE "calendar_feed" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"plan_id" uuid NOT NULL,
	"token_hash" text NOT NULL,
	"revoked_at" timestamp with time zone,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	CONSTRAINT "calendar_feed_team_id_id_pk" PRIMARY KEY("team_id","id")
);
--> statement-breakpoint
CREATE TABLE "coach_value" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"key" text NOT NULL,
	"value" double precision,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	CONSTRAINT "coach_value_team_id_id_pk" PRIMARY KEY("team_id","id")
);
--> statement-breakpoint
CREATE TABLE "plan_edit" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"plan_id" uuid NOT NULL,
	"seq" integer NOT NULL,
	"edit" jsonb NOT NULL,
	"inverse" jsonb NOT NULL,
	"undoes" uuid,
	"user_id" text NOT NULL,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	CONSTRAINT "plan_edit_team_id_id_pk" PRIMARY KEY("team_id","id"),
	CONSTRAINT "plan_edit_team_id_plan_id_seq_unique" UNIQUE("team_id","plan_id","seq")
);
--> statement-breakpoint
CREATE TABLE "plan_version" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"plan_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"seq" integer NOT NULL,
	"block" jsonb NOT NULL,
	"loads" jsonb NOT NULL,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	CONSTRAINT "plan_version_team_id_id_pk" PRIMARY KEY("team_id","id"),
	CONSTRAINT "plan_version_team_id_plan_id_number_unique" UNIQUE("team_id","plan_id","number")
);
--> statement-breakpoint
CREATE TABLE "team_recipe" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"lineage_id" uuid NOT NULL,
	"version" integer NOT NULL,
	"family" text NOT NULL,
	"source" text NOT NULL,
	"recipe" jsonb NOT NULL,
	"away_on" date,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	CONSTRAINT "team_recipe_team_id_id_pk" PRIMARY KEY("team_id","id"),
	CONSTRAINT "team_recipe_team_id_lineage_id_version_unique" UNIQUE("team_id","lineage_id","version")
);
--> statement-breakpoint
CREATE TABLE "team_school" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"school" jsonb NOT NULL,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	CONSTRAINT "team_school_team_id_id_pk" PRIMARY KEY("team_id","id")
);
--> statement-breakpoint
ALTER TABLE "training_session" DROP CONSTRAINT "training_session_team_id_plan_id_week_unique";--> statement-breakpoint
ALTER TABLE "plan" ADD COLUMN "block" jsonb;--> statement-breakpoint
ALTER TABLE "plan" ADD COLUMN "away_on" date;--> statement-breakpoint
ALTER TABLE "training_session" ADD COLUMN "slot_id" text DEFAULT 'main' NOT NULL;--> statement-breakpoint
ALTER TABLE "calendar_feed" ADD CONSTRAINT "calendar_feed_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "calendar_feed" ADD CONSTRAINT "calendar_feed_team_id_plan_id_plan_team_id_id_fk" FOREIGN KEY ("team_id","plan_id") REFERENCES "public"."plan"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "coach_value" ADD CONSTRAINT "coach_value_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plan_edit" ADD CONSTRAINT "plan_edit_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plan_edit" ADD CONSTRAINT "plan_edit_team_id_plan_id_plan_team_id_id_fk" FOREIGN KEY ("team_id","plan_id") REFERENCES "public"."plan"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plan_version" ADD CONSTRAINT "plan_version_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plan_version" ADD CONSTRAINT "plan_version_team_id_plan_id_plan_team_id_id_fk" FOREIGN KEY ("team_id","plan_id") REFERENCES "public"."plan"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "team_recipe" ADD CONSTRAINT "team_recipe_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "team_school" ADD CONSTRAINT "team_school_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "calendar_feed_token" ON "calendar_feed" USING btree ("token_hash");--> statement-breakpoint
CREATE INDEX "coach_value_by_key" ON "coach_value" USING btree ("team_id","key","entered_at");--> statement-breakpoint
CREATE UNIQUE INDEX "team_school_name" ON "team_school" USING btree ("team_id",(school ->> 'name'));--> statement-breakpoint
ALTER TABLE "training_session" ADD CONSTRAINT "training_session_team_id_plan_id_week_slot_id_unique" UNIQUE("team_id","plan_id","week","slot_id");