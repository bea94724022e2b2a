CREATE SCHEMA "auth";
--> statement-breakpoint
CREATE TABLE "auth"."account" (
	"id" text PRIMARY KEY NOT NULL,
	"account_id" text NOT NULL,
	"provider_id" text NOT NULL,
	"user_id" text NOT NULL,
	"access_token" text,
	"refresh_token" text,
	"id_token" text,
	"access_token_expires_at" timestamp with time zone,
	"refresh_token_expires_at" timestamp with time zone,
	"scope" text,
	"password" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "auth"."rate_limit" (
	"id" text PRIMARY KEY NOT NULL,
	"key" text NOT NULL,
	"count" integer NOT NULL,
	"last_request" bigint NOT NULL,
	CONSTRAINT "rate_limit_key_unique" UNIQUE("key")
);
--> statement-breakpoint
CREATE TABLE "auth"."session" (
	"id" text PRIMARY KEY NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"token" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	"ip_address" text,
	"user_agent" text,
	"user_id" text NOT NULL,
	CONSTRAINT "session_token_unique" UNIQUE("token")
);
--> statement-breakpoint
CREATE TABLE "auth"."user" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"email" text NOT NULL,
	"email_verified" boolean DEFAULT false NOT NULL,
	"image" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "user_email_unique" UNIQUE("email")
);
--> statement-breakpoint
CREATE TABLE "auth"."verification" (
	"id" text PRIMARY KEY NOT NULL,
	"identifier" text NOT NULL,
	"value" text NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "bar" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"room_id" uuid NOT NULL,
	"name" text NOT NULL,
	"mass" jsonb NOT NULL,
	"rated" jsonb NOT NULL,
	"collar" jsonb NOT NULL,
	"sleeve_mm" integer NOT NULL,
	CONSTRAINT "bar_team_id_id_pk" PRIMARY KEY("team_id","id")
);
--> statement-breakpoint
CREATE TABLE "rack" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"room_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"bar_id" uuid NOT NULL,
	"plates" jsonb NOT NULL,
	CONSTRAINT "rack_team_id_id_pk" PRIMARY KEY("team_id","id"),
	CONSTRAINT "rack_team_id_room_id_number_unique" UNIQUE("team_id","room_id","number")
);
--> statement-breakpoint
CREATE TABLE "lift_variant" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"lift" text NOT NULL,
	"bar" text NOT NULL,
	"start" text NOT NULL,
	"caution" text NOT NULL,
	CONSTRAINT "lift_variant_team_id_id_pk" PRIMARY KEY("team_id","id"),
	CONSTRAINT "lift_variant_team_id_name_unique" UNIQUE("team_id","name")
);
--> statement-breakpoint
CREATE TABLE "max_record" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"athlete_id" uuid NOT NULL,
	"variant_id" uuid NOT NULL,
	"load" jsonb NOT NULL,
	"date" date NOT NULL,
	"kind" text NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	CONSTRAINT "max_record_team_id_id_pk" PRIMARY KEY("team_id","id")
);
--> statement-breakpoint
CREATE TABLE "profile_point" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"test_id" uuid NOT NULL,
	"load_kg" double precision NOT NULL,
	"velocity_mps" double precision NOT NULL,
	"excluded" boolean DEFAULT false NOT NULL,
	CONSTRAINT "profile_point_team_id_id_pk" PRIMARY KEY("team_id","id")
);
--> statement-breakpoint
CREATE TABLE "profile_test" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"athlete_id" uuid NOT NULL,
	"variant_id" uuid NOT NULL,
	"date" date NOT NULL,
	"metric" text NOT NULL,
	"source" text NOT NULL,
	"processing" text NOT NULL,
	CONSTRAINT "profile_test_team_id_id_pk" PRIMARY KEY("team_id","id")
);
--> statement-breakpoint
CREATE TABLE "working_max_choice" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"athlete_id" uuid NOT NULL,
	"variant_id" uuid NOT NULL,
	"record_id" uuid NOT NULL,
	"factor" double precision,
	"chosen_by" text NOT NULL,
	"chosen_at" timestamp with time zone NOT NULL,
	CONSTRAINT "working_max_choice_team_id_id_pk" PRIMARY KEY("team_id","id")
);
--> statement-breakpoint
CREATE TABLE "plan" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"squad_id" uuid NOT NULL,
	"variant_id" uuid NOT NULL,
	"room_id" uuid NOT NULL,
	"start_date" date NOT NULL,
	"recipe" jsonb NOT NULL,
	"metric" text NOT NULL,
	"rounding" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"updated_by" text NOT NULL,
	"updated_at" timestamp with time zone NOT NULL,
	CONSTRAINT "plan_team_id_id_pk" PRIMARY KEY("team_id","id")
);
--> statement-breakpoint
CREATE TABLE "plan_override" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"plan_id" uuid NOT NULL,
	"athlete_id" uuid NOT NULL,
	"set_key" text NOT NULL,
	"load_kg" double precision NOT NULL,
	"set_by" text NOT NULL,
	"set_at" timestamp with time zone NOT NULL,
	CONSTRAINT "plan_override_team_id_id_pk" PRIMARY KEY("team_id","id"),
	CONSTRAINT "plan_override_team_id_plan_id_athlete_id_set_key_unique" UNIQUE("team_id","plan_id","athlete_id","set_key")
);
--> statement-breakpoint
CREATE TABLE "device_pairing" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"rack_id" uuid NOT NULL,
	"room_id" uuid NOT NULL,
	"handle" text NOT NULL,
	"secret_hash" text NOT NULL,
	"tries_left" integer NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"created_by" text NOT NULL,
	CONSTRAINT "device_pairing_team_id_id_pk" PRIMARY KEY("team_id","id"),
	CONSTRAINT "device_pairing_handle_unique" UNIQUE("handle"),
	CONSTRAINT "tries_not_negative" CHECK ("device_pairing"."tries_left" >= 0)
);
--> statement-breakpoint
CREATE TABLE "log_entry" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"session_id" uuid NOT NULL,
	"seq" bigint NOT NULL,
	"device_id" uuid NOT NULL,
	"boot_id" uuid NOT NULL,
	"device_seq" integer NOT NULL,
	"mono_ms" double precision NOT NULL,
	"wall_time" timestamp with time zone NOT NULL,
	"received_at" timestamp with time zone NOT NULL,
	"supersedes" uuid[] NOT NULL,
	"schema_version" integer NOT NULL,
	"kind" text NOT NULL,
	"body" jsonb NOT NULL,
	"author" text NOT NULL,
	CONSTRAINT "log_entry_team_id_id_pk" PRIMARY KEY("team_id","id"),
	CONSTRAINT "log_entry_team_id_session_id_seq_unique" UNIQUE("team_id","session_id","seq")
);
--> statement-breakpoint
CREATE TABLE "rack_device" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"room_id" uuid NOT NULL,
	"rack_id" uuid NOT NULL,
	"name" text NOT NULL,
	"token_hash" text NOT NULL,
	"paired_at" timestamp with time zone NOT NULL,
	"revoked_at" timestamp with time zone,
	CONSTRAINT "rack_device_team_id_id_pk" PRIMARY KEY("team_id","id"),
	CONSTRAINT "rack_device_token_hash_unique" UNIQUE("token_hash")
);
--> statement-breakpoint
CREATE TABLE "simulated_lifter" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"athlete_id" uuid NOT NULL,
	"variant_id" uuid NOT NULL,
	"truth" jsonb NOT NULL,
	CONSTRAINT "simulated_lifter_team_id_id_pk" PRIMARY KEY("team_id","id"),
	CONSTRAINT "simulated_lifter_team_id_athlete_id_variant_id_unique" UNIQUE("team_id","athlete_id","variant_id")
);
--> statement-breakpoint
CREATE TABLE "training_session" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"plan_id" uuid NOT NULL,
	"week" integer NOT NULL,
	"date" date NOT NULL,
	"room_id" uuid NOT NULL,
	"status" text NOT NULL,
	"frozen" jsonb NOT NULL,
	"last_seq" bigint DEFAULT 0 NOT NULL,
	"started_at" timestamp with time zone NOT NULL,
	"ended_at" timestamp with time zone,
	"started_by" text NOT NULL,
	CONSTRAINT "training_session_team_id_id_pk" PRIMARY KEY("team_id","id"),
	CONSTRAINT "training_session_team_id_plan_id_week_unique" UNIQUE("team_id","plan_id","week"),
	CONSTRAINT "ended_has_a_moment" CHECK (("training_session"."status" = 'ended') = ("training_session"."ended_at" IS NOT NULL))
);
--> statement-breakpoint
CREATE TABLE "athlete" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"squad_id" uuid NOT NULL,
	"birth_year" text,
	"training_since" text,
	"unit" text,
	"instruction" text,
	CONSTRAINT "athlete_team_id_id_pk" PRIMARY KEY("team_id","id")
);
--> statement-breakpoint
CREATE TABLE "membership" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"user_id" text NOT NULL,
	"name" text NOT NULL,
	"role" text NOT NULL,
	"athlete_id" uuid,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "membership_team_id_id_pk" PRIMARY KEY("team_id","id"),
	CONSTRAINT "membership_team_id_user_id_unique" UNIQUE("team_id","user_id")
);
--> statement-breakpoint
CREATE TABLE "room" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"zone" text NOT NULL,
	CONSTRAINT "room_team_id_id_pk" PRIMARY KEY("team_id","id")
);
--> statement-breakpoint
CREATE TABLE "squad" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"sport" text NOT NULL,
	"room_id" uuid NOT NULL,
	CONSTRAINT "squad_team_id_id_pk" PRIMARY KEY("team_id","id")
);
--> statement-breakpoint
CREATE TABLE "team" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"unit" text DEFAULT 'kg' NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "auth"."account" ADD CONSTRAINT "account_user_id_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "auth"."user"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "auth"."session" ADD CONSTRAINT "session_user_id_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "auth"."user"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bar" ADD CONSTRAINT "bar_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bar" ADD CONSTRAINT "bar_team_id_room_id_room_team_id_id_fk" FOREIGN KEY ("team_id","room_id") REFERENCES "public"."room"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "rack" ADD CONSTRAINT "rack_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "rack" ADD CONSTRAINT "rack_team_id_room_id_room_team_id_id_fk" FOREIGN KEY ("team_id","room_id") REFERENCES "public"."room"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "rack" ADD CONSTRAINT "rack_team_id_bar_id_bar_team_id_id_fk" FOREIGN KEY ("team_id","bar_id") REFERENCES "public"."bar"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "lift_variant" ADD CONSTRAINT "lift_variant_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "max_record" ADD CONSTRAINT "max_record_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "max_record" ADD CONSTRAINT "max_record_team_id_athlete_id_athlete_team_id_id_fk" FOREIGN KEY ("team_id","athlete_id") REFERENCES "public"."athlete"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "max_record" ADD CONSTRAINT "max_record_team_id_variant_id_lift_variant_team_id_id_fk" FOREIGN KEY ("team_id","variant_id") REFERENCES "public"."lift_variant"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "profile_point" ADD CONSTRAINT "profile_point_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "profile_point" ADD CONSTRAINT "profile_point_team_id_test_id_profile_test_team_id_id_fk" FOREIGN KEY ("team_id","test_id") REFERENCES "public"."profile_test"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "profile_test" ADD CONSTRAINT "profile_test_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "profile_test" ADD CONSTRAINT "profile_test_team_id_athlete_id_athlete_team_id_id_fk" FOREIGN KEY ("team_id","athlete_id") REFERENCES "public"."athlete"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "profile_test" ADD CONSTRAINT "profile_test_team_id_variant_id_lift_variant_team_id_id_fk" FOREIGN KEY ("team_id","variant_id") REFERENCES "public"."lift_variant"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "working_max_choice" ADD CONSTRAINT "working_max_choice_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "working_max_choice" ADD CONSTRAINT "working_max_choice_team_id_athlete_id_athlete_team_id_id_fk" FOREIGN KEY ("team_id","athlete_id") REFERENCES "public"."athlete"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "working_max_choice" ADD CONSTRAINT "working_max_choice_team_id_record_id_max_record_team_id_id_fk" FOREIGN KEY ("team_id","record_id") REFERENCES "public"."max_record"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plan" ADD CONSTRAINT "plan_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plan" ADD CONSTRAINT "plan_team_id_squad_id_squad_team_id_id_fk" FOREIGN KEY ("team_id","squad_id") REFERENCES "public"."squad"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plan" ADD CONSTRAINT "plan_team_id_room_id_room_team_id_id_fk" FOREIGN KEY ("team_id","room_id") REFERENCES "public"."room"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plan" ADD CONSTRAINT "plan_team_id_variant_id_lift_variant_team_id_id_fk" FOREIGN KEY ("team_id","variant_id") REFERENCES "public"."lift_variant"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plan_override" ADD CONSTRAINT "plan_override_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plan_override" ADD CONSTRAINT "plan_override_team_id_plan_id_plan_team_id_id_fk" FOREIGN KEY ("team_id","plan_id") REFERENCES "public"."plan"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plan_override" ADD CONSTRAINT "plan_override_team_id_athlete_id_athlete_team_id_id_fk" FOREIGN KEY ("team_id","athlete_id") REFERENCES "public"."athlete"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "device_pairing" ADD CONSTRAINT "device_pairing_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "device_pairing" ADD CONSTRAINT "device_pairing_team_id_rack_id_rack_team_id_id_fk" FOREIGN KEY ("team_id","rack_id") REFERENCES "public"."rack"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "log_entry" ADD CONSTRAINT "log_entry_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "log_entry" ADD CONSTRAINT "log_entry_team_id_session_id_training_session_team_id_id_fk" FOREIGN KEY ("team_id","session_id") REFERENCES "public"."training_session"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "rack_device" ADD CONSTRAINT "rack_device_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "rack_device" ADD CONSTRAINT "rack_device_team_id_rack_id_rack_team_id_id_fk" FOREIGN KEY ("team_id","rack_id") REFERENCES "public"."rack"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "rack_device" ADD CONSTRAINT "rack_device_team_id_room_id_room_team_id_id_fk" FOREIGN KEY ("team_id","room_id") REFERENCES "public"."room"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "simulated_lifter" ADD CONSTRAINT "simulated_lifter_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "simulated_lifter" ADD CONSTRAINT "simulated_lifter_team_id_athlete_id_athlete_team_id_id_fk" FOREIGN KEY ("team_id","athlete_id") REFERENCES "public"."athlete"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "simulated_lifter" ADD CONSTRAINT "simulated_lifter_team_id_variant_id_lift_variant_team_id_id_fk" FOREIGN KEY ("team_id","variant_id") REFERENCES "public"."lift_variant"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "training_session" ADD CONSTRAINT "training_session_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "training_session" ADD CONSTRAINT "training_session_team_id_plan_id_plan_team_id_id_fk" FOREIGN KEY ("team_id","plan_id") REFERENCES "public"."plan"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "training_session" ADD CONSTRAINT "training_session_team_id_room_id_room_team_id_id_fk" FOREIGN KEY ("team_id","room_id") REFERENCES "public"."room"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "athlete" ADD CONSTRAINT "athlete_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "athlete" ADD CONSTRAINT "athlete_team_id_squad_id_squad_team_id_id_fk" FOREIGN KEY ("team_id","squad_id") REFERENCES "public"."squad"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "membership" ADD CONSTRAINT "membership_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "membership" ADD CONSTRAINT "membership_team_id_athlete_id_athlete_team_id_id_fk" FOREIGN KEY ("team_id","athlete_id") REFERENCES "public"."athlete"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "room" ADD CONSTRAINT "room_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "squad" ADD CONSTRAINT "squad_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "squad" ADD CONSTRAINT "squad_team_id_room_id_room_team_id_id_fk" FOREIGN KEY ("team_id","room_id") REFERENCES "public"."room"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "training_session_by_date" ON "training_session" USING btree ("team_id","date");