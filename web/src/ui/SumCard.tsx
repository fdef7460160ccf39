import type { SumTable } from "../api/client";

interface Rows {
  label: string;
  total: string;
  rows: { label: string; text: string }[];
}

/** A height explained, or an amount: its total and the terms that add up to it. */
export function SumRows({ table }: { table: Rows }) {
  return (
    <table className="w-full text-[11.5px]">
      <tbody>
        {table.rows.map((row) => (
          <tr key={`${row.label}${row.text}`}>
            <td className="pr-3 text-quiet">{row.label}</td>
            <td className="whitespace-nowrap text-right font-mono">{row.text}</td>
          </tr>
        ))}
        <tr className="border-t border-rule font-semibold">
          <td className="pr-3">{table.label}</td>
          <td className="whitespace-nowrap text-right font-mono">{table.total}</td>
        </tr>
      </tbody>
    </table>
  );
}

export function SumCard({ table, x, y }: { table: SumTable; x: number; y: number }) {
  return (
    <div
      role="tooltip"
      className="pointer-events-none absolute z-10 w-[252px] rounded-md border-[1.5px] border-line bg-field p-2.5"
      style={{ left: x, top: y }}
    >
      <SumRows table={table} />
    </div>
  );
}
