import type { IngredientSummary } from "../../api";
import { csv } from "../../lib/csv";
import { download } from "../../lib/download";
import { type Draft, toFile } from "../draft";

/** The file carries the certificates of its scents, so that it reads the same in another studio. */
export function saveFile(draft: Draft, ingredients: ReadonlyMap<string, IngredientSummary>): void {
  const file = toFile(draft);
  const used = file.portions.flatMap((portion) => portion.lines.map((line) => line.ingredient ?? ""));
  const papers = used.flatMap((id) => {
    const paper = ingredients.get(id)?.certificate;
    return paper ? [[id, paper] as const] : [];
  });
  const certificates = { ...Object.fromEntries(papers), ...file.product.certificates };
  const whole = { ...file, product: { ...file.product, certificates } };
  saveText(draft, "json", "application/json", `${JSON.stringify(whole, null, 2)}\n`);
}

/** One line a row, as typed; pasted back as text it reads the same. */
export function saveCsv(draft: Draft): void {
  const rows = draft.portions.flatMap((portion) =>
    portion.lines.map((line) => [portion.name, line.ingredient ?? line.text, line.amount, line.unit]),
  );
  const text = csv([["portion", "ingredient", "amount", "unit"], ...rows]);
  saveText(draft, "csv", "text/csv", text);
}

function saveText(draft: Draft, ending: string, type: string, text: string): void {
  download(`${draft.name.toLowerCase().replace(/[^a-z0-9]+/g, "-") || "formula"}.${ending}`, text, type);
}
