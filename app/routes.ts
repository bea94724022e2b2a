import { index, layout, type RouteConfig, route } from "@react-router/dev/routes";

export default [
  index("routes/home/home.tsx"),
  route("sign-in", "routes/sign-in/sign-in.tsx"),
  route("sign-out", "routes/sign-in/sign-out.ts"),
  route("pair", "routes/sign-in/pair.tsx"),
  layout("routes/frame/frame.tsx", [
    route("floor", "routes/floor/day.tsx"),
    route("floor/:sessionId", "routes/floor/session.tsx"),
    route("plan", "routes/plan/plans.tsx"),
    route("plan/:planId", "routes/plan/plan.tsx"),
    route("athletes", "routes/athletes/athletes.tsx"),
    route("athletes/:athleteId", "routes/athletes/athlete.tsx"),
    route("lab", "routes/lab/lab.tsx"),
    route("review", "routes/review/reviews.tsx"),
    route("review/:sessionId", "routes/review/review.tsx"),
    route("gear", "routes/gear/gear.tsx"),
    route("tablets", "routes/tablets/tablets.tsx"),
    route("card", "routes/card/card.tsx"),
  ]),
  route("rack/:sessionId/:rackId", "routes/rack/rack.tsx"),
  route("api/log/:sessionId", "routes/api/log.ts"),
  route("api/live/:sessionId", "routes/api/live.ts"),
  route("api/find", "routes/api/find.ts"),
  route("health", "routes/api/health.ts"),
] satisfies RouteConfig;
