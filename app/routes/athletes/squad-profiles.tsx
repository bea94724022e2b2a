import { useCallback } from "react";
import { Link, useNavigate } from "react-router";
import { formatKg, kgToGrains, type MassUnit, massIn } from "../../../core/units/mass";
import { formatVelocity } from "../../../core/units/velocity";
import { principalOf } from "../../platform/guard.server";
import { Chart, type ChartColors } from "../../ui/chart";
import { Day } from "../../ui/dates";
import { Empty, Page } from "../../ui/page";
import { PageSelect } from "../../ui/page-select";
import { useUnit } from "../../ui/unit";
import { useAddress } from "../../ui/use-address";
import { Figure, Figures } from "../../ui/working";
import { readSquadProfiles } from "../../workflows/athletes/read-squad-profiles.server";
import type { Route } from "./+types/squad-profiles";

export function meta() {
  return [{ title: "Profiles of the squad · Sprezza" }];
}

const uuid = /^[0-9a-f-]{36}$/;

export function loader({ context, url }: Route.LoaderArgs) {
  const param = (name: string) => {
    const value = url.searchParams.get(name) ?? "";
    return uuid.test(value) ? value : undefined;
  };
  return readSquadProfiles(principalOf(context), {
    variantId: param("variant"),
    squadId: param("squad"),
  });
}

type Row = Route.ComponentProps["loaderData"]["rows"][number];
type Tested = Row & { test: NonNullable<Row["test"]> };

/** Force against speed: a point an athlete, hollow where the test is old. */
function windowChart(colors: ChartColors, tested: readonly Tested[], unit: MassUnit) {
  const axis = (name: string, gap: number) => ({
    type: "value",
    name,
    nameLocation: "middle",
    nameGap: gap,
    scale: true,
    nameTextStyle: { color: colors.muted, fontSize: 12 },
    axisLine: { show: true, lineStyle: { color: colors.rule } },
    axisLabel: { color: colors.muted, fontSize: 12 },
    splitLine: { lineStyle: { color: colors.rule, opacity: 0.5 } },
  });
  const points = (old: boolean) =>
    tested
      .filter((row) => row.test.stale === old)
      .map((row) => ({
        id: row.id,
        name: row.name,
        value: [massIn(kgToGrains(row.test.l0Kg), unit), row.test.v0Mps],
      }));
  const label = {
    show: true,
    position: "right",
    formatter: (one: { name: string }) => one.name.split(" ")[0],
    color: colors.ink,
    fontSize: 12,
  };
  return {
    grid: { left: 54, right: 60, top: 14, bottom: 42 },
    xAxis: axis(`L0, ${unit}`, 26),
    yAxis: axis("V0, m/s", 40),
    series: [
      {
        type: "scatter",
        data: points(false),
        symbolSize: 9,
        itemStyle: { color: colors.ink },
        label,
        labelLayout: { moveOverlap: "shiftY" },
      },
      {
        type: "scatter",
        data: points(true),
        symbolSize: 9,
        itemStyle: { color: colors.paper, borderColor: colors.secondary, borderWidth: 2 },
        label,
        labelLayout: { moveOverlap: "shiftY" },
      },
    ],
  };
}

/** The windows of a squad side by side: force against speed, and the figures behind each. */
export default function SquadProfiles({ loaderData }: Route.ComponentProps) {
  const unit = useUnit();
  const { rows, variants, variant, squads, staleAfterDays } = loaderData;
  const { params, set } = useAddress();
  const navigate = useNavigate();
  const tested = rows.flatMap((row) => (row.test ? [{ ...row, test: row.test }] : []));
  const untested = rows.filter((row) => !row.test);
  const stale = tested.filter((row) => row.test.stale);
  const build = useCallback(
    (colors: ChartColors) => windowChart(colors, tested, unit),
    [tested, unit],
  );
  return (
    <Page
      title="Profiles of the squad"
      facts={`${tested.length} tested · ${stale.length} older than ${staleAfterDays} days · ${untested.length} untested`}
    >
      <search className="mb-2 flex flex-wrap items-end gap-3">
        <span className="w-72">
          <PageSelect
            label="Lift"
            value={variant?.id ?? ""}
            onChange={(event) => set("variant", event.target.value)}
          >
            {variants.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name} ({one.tests} tests)
              </option>
            ))}
          </PageSelect>
        </span>
        <span className="w-44">
          <PageSelect
            label="Squad"
            value={params.get("squad") ?? ""}
            onChange={(event) => set("squad", event.target.value)}
          >
            <option value="">all</option>
            {squads.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </PageSelect>
        </span>
      </search>
      {tested.length === 0 ? (
        <Empty
          action={
            <Link className="btn btn-primary" to="/lab/profile">
              Test a profile
            </Link>
          }
        >
          Nobody is tested at this lift. A profile is five loads and ten minutes.
        </Empty>
      ) : (
        <Chart
          label={`V0 against L0 of ${tested.length} athletes; the table below holds the figures`}
          height={270}
          drawnPx={936}
          build={build}
          onPick={(id) => void navigate(`/athletes/${id}`)}
        />
      )}
      <WindowTable rows={[...tested, ...untested]} variantId={variant?.id ?? ""} />
    </Page>
  );
}

/** The figures behind the points, and who has none. */
function WindowTable({ rows, variantId }: { rows: readonly Row[]; variantId: string }) {
  const unit = useUnit();
  return (
    <Figures label="Windows" className="mt-2 overflow-x-auto">
      <table className="ledger">
        <thead>
          <tr>
            <th scope="col">Athlete</th>
            <th scope="col">Squad</th>
            <th scope="col">Tested</th>
            <th scope="col" className="!text-right">
              V0, m/s
            </th>
            <th scope="col" className="!text-right">
              L0
            </th>
            <th scope="col" className="!text-right">
              1RM by velocity
            </th>
            <th scope="col" className="!text-right">
              Peak power at
            </th>
            <th scope="col">To know</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => {
            const { test } = row;
            return (
              <tr key={row.id}>
                <th scope="row" className="!py-[0.1rem] !text-base-content">
                  <Link className="hover:underline" to={`/athletes/${row.id}`}>
                    {row.name}
                  </Link>
                </th>
                <td className="!py-[0.1rem] text-muted">{row.squadName}</td>
                {test ? (
                  <>
                    <td className="!py-[0.1rem] whitespace-nowrap">
                      <Link
                        className="hover:underline"
                        to={`/athletes/${row.id}/profiles/${test.id}`}
                      >
                        <Day of={test.date} />
                      </Link>{" "}
                      <span className="text-muted">{test.metric}</span>
                    </td>
                    <td className="!py-[0.1rem] text-right">{formatVelocity(test.v0Mps)}</td>
                    <td className="!py-[0.1rem] text-right">
                      <Figure id={`${row.id}/l0`} working={test.lineWorking}>
                        {formatKg(test.l0Kg, unit, 1)}
                      </Figure>
                    </td>
                    <td className="!py-[0.1rem] text-right">
                      {test.oneRepMax ? (
                        <Figure id={`${row.id}/1rm`} working={test.oneRepMax.working}>
                          {formatKg(test.oneRepMax.kg, unit, 1)}
                        </Figure>
                      ) : (
                        "no threshold"
                      )}
                    </td>
                    <td className="!py-[0.1rem] text-right">
                      {test.peakPower ? (
                        <>
                          {test.peakPower.reached ? "" : "≥ "}
                          <Figure id={`${row.id}/power`} working={test.peakPower.working}>
                            {formatKg(test.peakPower.loadKg, unit, 1)}
                          </Figure>
                          {test.peakPower.measured ? "" : " est."}
                        </>
                      ) : null}
                    </td>
                    <td className="!py-[0.1rem] text-secondary">
                      {test.stale ? <b>{test.ageDays} days old</b> : null}
                      {test.stale && test.warnings > 0 ? ", " : ""}
                      {test.warnings > 0
                        ? `${test.warnings} ${test.warnings === 1 ? "warning" : "warnings"}`
                        : ""}
                    </td>
                  </>
                ) : (
                  <td colSpan={6} className="!py-[0.1rem] text-muted">
                    untested ·{" "}
                    <Link
                      className="underline"
                      to={`/lab/profile?athlete=${row.id}&variant=${variantId}`}
                    >
                      test
                    </Link>
                  </td>
                )}
              </tr>
            );
          })}
        </tbody>
      </table>
    </Figures>
  );
}
