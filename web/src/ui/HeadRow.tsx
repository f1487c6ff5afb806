import type { ReactNode } from "react";

interface Column {
  says: ReactNode;
  /** Figures stand at the right. */
  right?: boolean;
  className?: string;
}

/** The head of a table: what stands in each column, in small italics. */
export function HeadRow({ columns }: { columns: readonly (string | Column)[] }) {
  return (
    <thead>
      <tr className="text-caption italic text-soft">
        {columns.map((column, index) => {
          const {
            says,
            right = false,
            className = "",
          } = typeof column === "string" ? { says: column } : column;
          return (
            <th
              // biome-ignore lint/suspicious/noArrayIndexKey: a column is known by its place
              key={index}
              scope="col"
              className={`font-normal ${right ? "text-right" : "text-left"} ${className}`}
            >
              {says}
            </th>
          );
        })}
      </tr>
    </thead>
  );
}
