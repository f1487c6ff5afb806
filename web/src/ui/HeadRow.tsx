import type { ReactNode } from "react";

interface Column {
  says: ReactNode;
  /** Figures stand at the right. */
  right?: boolean;
  className?: string;
}

/** The head of a table: what stands in each column, in small italics. A column that needs no name has an empty one. */
export function HeadRow({
  columns,
  ruled = false,
}: {
  columns: readonly (string | Column)[];
  ruled?: boolean;
}) {
  return (
    <thead>
      <tr className={`text-caption italic text-soft ${ruled ? "border-b-[0.9px] border-ink" : ""}`}>
        {columns.map((column, index) => {
          const {
            says,
            right = false,
            className = "",
          } = typeof column === "string" ? { says: column } : column;
          // biome-ignore lint/suspicious/noArrayIndexKey: a column is known by its place
          if (says === "") return <td key={index} className={className} />;
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
