CREATE TABLE "device_clock" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"device_id" uuid NOT NULL,
	"mono_offset_ms" double precision NOT NULL,
	"wall_offset_ms" double precision NOT NULL,
	"learnt_at" timestamp with time zone NOT NULL,
	CONSTRAINT "device_clock_team_id_id_pk" PRIMARY KEY("team_id","id")
);
--> statement-breakpoint
CREATE TABLE "session_change" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"session_id" uuid NOT NULL,
	"change" text NOT NULL,
	"reason" text NOT NULL,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	CONSTRAINT "session_change_team_id_id_pk" PRIMARY KEY("team_id","id")
);
--> statement-breakpoint
ALTER TABLE "training_session" ALTER COLUMN "plan_id" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "training_session" ALTER COLUMN "week" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "training_session" ALTER COLUMN "room_id" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "training_session" drop column "lift";--> statement-breakpoint
ALTER TABLE "training_session" ADD COLUMN "lift" text GENERATED ALWAYS AS (frozen->'slots'->0->>'lift') STORED;--> statement-breakpoint
ALTER TABLE "log_entry" ADD COLUMN "made_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "log_entry" ADD COLUMN "doubt" text;--> statement-breakpoint
ALTER TABLE "training_session" ADD COLUMN "kind" text GENERATED ALWAYS AS (frozen->'slots'->0->>'kind') STORED;--> statement-breakpoint
ALTER TABLE "device_clock" ADD CONSTRAINT "device_clock_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "session_change" ADD CONSTRAINT "session_change_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "session_change" ADD CONSTRAINT "session_change_team_id_session_id_training_session_team_id_id_fk" FOREIGN KEY ("team_id","session_id") REFERENCES "public"."training_session"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "device_clock_newest" ON "device_clock" USING btree ("team_id","device_id","learnt_at");--> statement-breakpoint
CREATE INDEX "session_change_of_session" ON "session_change" USING btree ("team_id","session_id");