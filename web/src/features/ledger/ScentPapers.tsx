import {
  type Certificate,
  type Evaluation,
  type IngredientSummary,
  messageOf,
  useSaveCertificate,
} from "../../api";
import { useNotice } from "../../ui";
import type { Draft } from "../draft";
import { CertificateFields } from "../ingredients";

type Product = Draft["product"];

interface Props {
  draft: Draft;
  evaluation: Evaluation | null;
  ingredients: ReadonlyMap<string, IngredientSummary>;
  onChange: (patch: Partial<Product>) => void;
}

/** The certificate of each scent, entered once for the studio; without one its limit is not known. */
export function ScentPapers({ draft, evaluation, ingredients, onChange }: Props) {
  const save = useSaveCertificate();
  const say = useNotice();
  const used = new Set((evaluation?.lines ?? []).map((line) => line.ingredient));
  const scents = [...used].filter((id) => ingredients.get(id)?.role === "fragrance");
  if (scents.length === 0) return null;
  const onPaper = async (id: string, paper: Certificate) => {
    try {
      await save.mutateAsync({ id, paper });
      // The studio's paper counts from now on, not the copy that came with this formula; and the readings are asked anew.
      const { [id]: _copy, ...others } = draft.product.certificates ?? {};
      onChange({ certificates: others });
    } catch (error) {
      say(messageOf(error), { asks: true });
    }
  };
  return (
    <section className="pt-6" aria-label="Certificates of the scents">
      <h2 className="text-row italic text-soft">Certificates of the scents, for every formula</h2>
      {scents.map((id) => {
        const copy = draft.product.certificates?.[id];
        const scent = ingredients.get(id);
        const name = scent?.short_name ?? id;
        return (
          <fieldset key={id} className="border-b-[0.9px] border-ink py-2">
            <legend className="float-left w-44 text-body font-bold">
              {name}
              {copy && (
                <span className="block text-caption font-medium text-soft">came with this formula</span>
              )}
            </legend>
            <CertificateFields
              name={name}
              paper={copy ?? scent?.certificate ?? null}
              onChange={(paper) => void onPaper(id, paper)}
            />
          </fieldset>
        );
      })}
    </section>
  );
}
