import { type SideRow, sideWords } from "../../core/contrast/sides";

/** Reps to the left and to the right, and which side has some to make up. */
export function SideTable({
  rows,
  labelledBy,
}: {
  /** `who` where the rows are of several athletes. */
  rows: ReadonlyArray<SideRow & { who?: string }>;
  labelledBy: string;
}) {
  return (
    <table className="ledger w-full" aria-labelledby={labelledBy}>
      <thead>
        <tr>
          <th scope="col">{rows[0]?.who === undefined ? "Item" : "Athlete"}</th>
          <th scope="col" className="!text-right">
            Left
          </th>
          <th scope="col" className="!text-right">
            Right
          </th>
          <th scope="col">Then</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((one) => (
          <tr key={`${one.who}/${one.item}`}>
            <th scope="row">
              {one.who ?? one.item}
              {one.who === undefined ? null : (
                <span className="block text-sm font-normal text-muted">{one.item}</span>
              )}
            </th>
            <td className="text-right">{one.left}</td>
            <td className="text-right">{one.right}</td>
            <td className={one.apart === 0 ? "text-muted" : "font-bold"}>{sideWords(one)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
