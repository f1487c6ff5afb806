import { useState } from "react";
import { csv } from "../lib/csv";
import { download } from "../lib/download";
import { Dialog } from "./Dialog";

interface Props {
  name: string;
  /** The same numbers as a table. */
  columns: readonly string[];
  rows: readonly (readonly string[])[];
  /** The drawing's own element, for saving. */
  svg: () => SVGSVGElement | null;
}

/** What every drawing offers: its table, and its file. */
export function DrawingTools({ name, columns, rows, svg }: Props) {
  const [open, setOpen] = useState(false);
  const file = name.toLowerCase().replace(/[^a-z0-9]+/g, "-");
  return (
    <>
      <button type="button" className="border-b border-ink text-caption" onClick={() => setOpen(true)}>
        As a table
      </button>
      <Dialog open={open} onOpenChange={setOpen} title={name} lead="The numbers the drawing is made of.">
        <table className="mt-4 w-full text-label">
          <thead>
            <tr>
              {columns.map((column, index) => (
                <th
                  key={column}
                  scope="col"
                  className={`rule py-1 font-normal italic text-soft ${index ? "text-right" : "text-left"}`}
                >
                  {column}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((row, index) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: two lines may be alike; the table is shown once
              <tr key={index} className="rule border-b">
                {row.map((cell, column) => (
                  <td key={columns[column]} className={`py-1 ${column ? "text-right" : ""}`}>
                    {cell}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
        <p className="mt-5 flex gap-6">
          <button
            type="button"
            className="border-b border-ink text-label"
            onClick={() => download(`${file}.csv`, csv([columns, ...rows]), "text/csv")}
          >
            Save as CSV
          </button>
          <button
            type="button"
            className="border-b border-ink text-label"
            onClick={() => {
              const drawing = svg();
              if (drawing) download(`${file}.svg`, standalone(drawing), "image/svg+xml");
            }}
          >
            Save the drawing as SVG
          </button>
          <button
            type="button"
            className="border-b border-ink text-label"
            onClick={() => {
              const drawing = svg();
              if (drawing) void savePng(`${file}.png`, drawing);
            }}
          >
            as PNG
          </button>
        </p>
      </Dialog>
    </>
  );
}

/** The drawing with its colours written in, so that it stands alone. */
function standalone(drawing: SVGSVGElement): string {
  const style = getComputedStyle(document.documentElement);
  const text = new XMLSerializer().serializeToString(drawing);
  return text.replace(/var\((--[a-z]+)\)/g, (_, token: string) => style.getPropertyValue(token).trim());
}

const PNG_SCALE = 2;

/** The drawing at twice its size on its own paper. */
async function savePng(file: string, drawing: SVGSVGElement): Promise<void> {
  const box = drawing.getBoundingClientRect();
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(standalone(drawing))}`;
  await image.decode();
  const canvas = document.createElement("canvas");
  canvas.width = box.width * PNG_SCALE;
  canvas.height = box.height * PNG_SCALE;
  const pen = canvas.getContext("2d");
  if (!pen) return;
  pen.fillStyle = getComputedStyle(document.documentElement).getPropertyValue("--paper");
  pen.fillRect(0, 0, canvas.width, canvas.height);
  pen.drawImage(image, 0, 0, canvas.width, canvas.height);
  canvas.toBlob((blob) => blob && download(file, blob, "image/png"), "image/png");
}
