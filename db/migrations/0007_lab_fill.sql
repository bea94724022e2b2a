ALTER TABLE "athlete_setup" ADD COLUMN "bottom_m" double precision;--> statement-breakpoint
ALTER TABLE "athlete_setup" ADD COLUMN "lockout_m" double precision;--> statement-breakpoint
ALTER TABLE "athlete_setup" ADD COLUMN "box_seat_cm" double precision;--> statement-breakpoint
ALTER TABLE "athlete_setup" ADD COLUMN "box_crease_cm" double precision;