CREATE TABLE "band_inspection" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"piece_id" uuid NOT NULL,
	"date" date NOT NULL,
	"finding" text NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	CONSTRAINT "band_inspection_team_id_id_pk" PRIMARY KEY("team_id","id")
);
--> statement-breakpoint
CREATE TABLE "gear_piece" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"room_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"name" text NOT NULL,
	"count" integer NOT NULL,
	"values" jsonb NOT NULL,
	"away_on" date,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	CONSTRAINT "gear_piece_team_id_id_pk" PRIMARY KEY("team_id","id"),
	CONSTRAINT "gear_piece_count" CHECK (count BETWEEN 1 AND 60),
	CONSTRAINT "gear_piece_kind" CHECK (kind NOT IN ('bar', 'rack'))
);
--> statement-breakpoint
CREATE TABLE "lab_answer" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"athlete_id" uuid,
	"plan_id" uuid,
	"tool" text NOT NULL,
	"state" text NOT NULL,
	"answer" text NOT NULL,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	CONSTRAINT "lab_answer_team_id_id_pk" PRIMARY KEY("team_id","id"),
	CONSTRAINT "lab_answer_of_one" CHECK ((athlete_id IS NULL) <> (plan_id IS NULL))
);
--> statement-breakpoint
ALTER TABLE "bar" ADD COLUMN "shape" text DEFAULT 'straight' NOT NULL;--> statement-breakpoint
ALTER TABLE "bar" ADD COLUMN "away_on" date;--> statement-breakpoint
ALTER TABLE "rack" ADD COLUMN "bolted" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "rack" ADD COLUMN "anchor" jsonb;--> statement-breakpoint
ALTER TABLE "rack" ADD COLUMN "peg_m" double precision;--> statement-breakpoint
ALTER TABLE "rack" ADD COLUMN "hooks_cm" double precision[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE "rack" ADD COLUMN "safeties_cm" double precision[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE "rack" ADD COLUMN "away_on" date;--> statement-breakpoint
ALTER TABLE "membership" ADD COLUMN "unit" text;--> statement-breakpoint
ALTER TABLE "band_inspection" ADD CONSTRAINT "band_inspection_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "band_inspection" ADD CONSTRAINT "band_inspection_team_id_piece_id_gear_piece_team_id_id_fk" FOREIGN KEY ("team_id","piece_id") REFERENCES "public"."gear_piece"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "gear_piece" ADD CONSTRAINT "gear_piece_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "gear_piece" ADD CONSTRAINT "gear_piece_team_id_room_id_room_team_id_id_fk" FOREIGN KEY ("team_id","room_id") REFERENCES "public"."room"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "lab_answer" ADD CONSTRAINT "lab_answer_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "lab_answer" ADD CONSTRAINT "lab_answer_team_id_athlete_id_athlete_team_id_id_fk" FOREIGN KEY ("team_id","athlete_id") REFERENCES "public"."athlete"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "lab_answer" ADD CONSTRAINT "lab_answer_team_id_plan_id_plan_team_id_id_fk" FOREIGN KEY ("team_id","plan_id") REFERENCES "public"."plan"("team_id","id") ON DELETE no action ON UPDATE no action;