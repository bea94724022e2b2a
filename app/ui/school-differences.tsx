import { compareSchools, type School } from "../../core/checks/school";

/** The matters in which two schools differ, side by side. */
export function SchoolDifferences({ a, b }: { a: School; b: School }) {
  return (
    <table className="ledger mt-2 max-w-4xl">
      <thead>
        <tr>
          <th scope="col">Matter</th>
          <th scope="col">{a.name}</th>
          <th scope="col">{b.name}</th>
        </tr>
      </thead>
      <tbody>
        {compareSchools(a, b).map((row) => (
          <tr key={row.matter}>
            <th scope="row">{row.matter}</th>
            <td>{row.a}</td>
            <td>{row.b}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
