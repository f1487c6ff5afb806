import { useRef, useState } from "react";
import { useNavigate } from "react-router";
import {
  type Certificate,
  type IngredientAnswer,
  messageOf,
  useDeleteIngredient,
  useForgetName,
  useIngredient,
  useLearnName,
  useSaveCertificate,
  useSaveStock,
  useSetPrice,
} from "../../api";
import { emptied } from "../../lib/emptied";
import { AskedOnce } from "../../lib/plausible";
import { massUnit, readTyped, typedOf } from "../../lib/units";
import { Button, Field, NumberInput, Strip, useNotice } from "../../ui";
import { CertificateFields } from "./CertificateFields";
import { OwnIngredientDialog } from "./OwnIngredientDialog";

/** One ingredient: what it is for, its price, its names, every property with its source. */
export function IngredientSheet({ id }: { id: string }) {
  const { data, error } = useIngredient(id);
  if (error) return <p className="pt-16 text-reading text-rosy">{messageOf(error)}</p>;
  if (!data) return <p className="pt-16 text-reading text-soft">Opening…</p>;
  return <Sheet item={data} />;
}

function Sheet({ item }: { item: IngredientAnswer }) {
  const [editing, setEditing] = useState<"copy" | "change" | null>(null);
  const remove = useDeleteIngredient();
  const navigate = useNavigate();
  const say = useNotice();
  const onRemove = async () => {
    try {
      await remove.mutateAsync(item.id);
      await navigate("/pantry");
      say(`${item.short_name} is off the shelf.`);
    } catch (failure) {
      say(messageOf(failure), { asks: true });
    }
  };
  return (
    <article
      className="h-[calc(100vh-44px)] overflow-y-auto pb-12 pt-2"
      // biome-ignore lint/a11y/noNoninteractiveTabindex: a region that scrolls must be reachable by keyboard
      tabIndex={0}
      aria-label={item.short_name}
    >
      <div className="flex items-baseline justify-between gap-6">
        <h2 className="text-title font-[350] leading-[1.1]">{item.short_name}</h2>
        <p className="flex shrink-0 gap-6">
          {item.own && <Button onClick={() => setEditing("change")}>Change it</Button>}
          {item.own && <Button onClick={() => void onRemove()}>Take it off the shelf</Button>}
          <Button onClick={() => setEditing("copy")}>Make my own from it</Button>
        </p>
      </div>
      <p className="text-row text-soft">
        {item.name === item.short_name ? "" : `${item.name}. `}
        {item.inci}
        {item.own && item.based_on ? `, based on ${item.based_on}` : ""}
      </p>
      <p className="max-w-[68ch] pt-3 text-reading">{item.note}</p>
      <div className="grid grid-cols-2 gap-12 pt-6">
        <Price item={item} />
        <Names item={item} />
        <Stock item={item} />
        {item.role === "fragrance" && <Paper item={item} />}
      </div>
      <Properties item={item} />
      {editing && (
        <OwnIngredientDialog item={item} copy={editing === "copy"} onClose={() => setEditing(null)} />
      )}
    </article>
  );
}

function Price({ item }: { item: IngredientAnswer }) {
  const own = item.price_basis === "studio" ? (item.price_per_kg ?? "") : "";
  const [text, setText] = useState(own);
  const [breaks, setBreaks] = useState<readonly (readonly string[])[]>(item.price_breaks);
  const [error, setError] = useState<string>();
  const save = useSetPrice();
  const submit = async (asked = breaks) => {
    const whole = asked.filter((each) => each.every((cell) => cell.trim()));
    if (text.trim() === own && JSON.stringify(whole) === JSON.stringify(item.price_breaks)) return;
    try {
      const answer = await save.mutateAsync({
        id: item.id,
        price: text,
        breaks: whole.map(([from_kg = "", price_per_kg = ""]) => ({ from_kg, price_per_kg })),
      });
      setError(undefined);
      setText(answer.price_basis === "studio" ? (answer.price_per_kg ?? "") : "");
      setBreaks(answer.price_breaks);
    } catch (failure) {
      setError(messageOf(failure));
    }
  };
  const [low, high] = (item.price_band ?? []).map(Number);
  const shown = item.price_per_kg === null ? null : Number(item.price_per_kg);
  return (
    <section aria-label="Price">
      <h3 className="text-label italic text-soft">Price</h3>
      <form
        className="flex items-end gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          void submit();
        }}
      >
        <Field
          className="w-48"
          label="What you pay"
          placeholder={item.price_per_kg ?? "not known"}
          value={text}
          error={error}
          inputMode="decimal"
          after={`${item.currency} a kg`}
          onChange={(event) => setText(event.target.value)}
          onBlur={() => void submit()}
        />
      </form>
      {own && (
        <Breaks
          breaks={breaks}
          currency={item.currency}
          onType={setBreaks}
          onDone={() => void submit()}
          onTakeOut={(index) => void submit(breaks.filter((_, at) => at !== index))}
        />
      )}
      {low !== undefined && high !== undefined && (
        <div className="pt-3">
          <Strip
            id={`price${item.id}`}
            min={0}
            max={Math.max(high * 1.5, (shown ?? 0) * 1.2)}
            wanted={{ low, high }}
            value={shown}
            width={260}
            text={`Price ${item.price_per_kg ?? "not known"} ${item.currency} a kg; usual band ${low} to ${high}`}
            format={String}
          />
          <p className="pt-1 text-caption text-soft">
            {item.price_basis === "studio" ? "Yours" : "The middle of the usual band"}; the lane is the usual
            band, an estimate.
            {item.price_note && ` ${item.price_note}`}
          </p>
        </div>
      )}
    </section>
  );
}

/** What larger amounts cost: a batch that needs that much is reckoned at that price. */
function Breaks({
  breaks,
  currency,
  onType,
  onDone,
  onTakeOut,
}: {
  breaks: readonly (readonly string[])[];
  currency: string;
  onType: (breaks: readonly (readonly string[])[]) => void;
  onDone: () => void;
  onTakeOut: (index: number) => void;
}) {
  const set = (index: number, cell: number, value: string) =>
    onType(breaks.map((each, at) => (at === index ? each.map((c, i) => (i === cell ? value : c)) : each)));
  const cell = (index: number, at: number, label: string) => (
    <NumberInput
      aria-label={label}
      className="w-16 text-center"
      maxLength={12}
      value={breaks[index]?.[at]}
      onChange={(event) => set(index, at, event.target.value)}
      onBlur={onDone}
    />
  );
  return (
    <div className="pt-2 text-body">
      {breaks.map((_, index) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a break is known by its place while it is typed
        <p key={index} className="leading-8">
          from {cell(index, 0, `Larger amount ${index + 1} in kg`)} kg{" "}
          {cell(index, 1, `Price from larger amount ${index + 1}`)} {currency} a kg{" "}
          <button
            type="button"
            className="ml-2 min-h-6 border-b border-ink text-caption"
            onClick={() => onTakeOut(index)}
          >
            Take out
          </button>
        </p>
      ))}
      <button
        type="button"
        className="min-h-6 border-b border-ink text-caption"
        onClick={() => onType([...breaks, ["", ""]])}
      >
        Another price for a larger amount
      </button>
    </div>
  );
}

function Stock({ item }: { item: IngredientAnswer }) {
  const known = typedOf(item.on_hand_g, "g");
  const [text, setText] = useState(known);
  const [error, setError] = useState<string>();
  const save = useSaveStock();
  const asked = useRef(new AskedOnce());
  const submit = async () => {
    if (text.trim() === known) return;
    const on_hand_g = readTyped(text, "g");
    if (on_hand_g !== null && !(Number.isFinite(on_hand_g) && on_hand_g >= 0))
      return setError("On hand must be a mass, or empty.");
    const doubt = on_hand_g === null ? "" : asked.current.about(on_hand_g, item.on_hand_g, "g");
    if (doubt) return setError(doubt);
    try {
      await save.mutateAsync({ id: item.id, on_hand_g });
      setError(undefined);
    } catch (failure) {
      setError(messageOf(failure));
    }
  };
  return (
    <section aria-label="Stock">
      <h3 className="text-label italic text-soft">On hand; batches count it down</h3>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void submit();
        }}
      >
        <Field
          className="w-48"
          label="There is"
          placeholder="not known"
          value={text}
          error={error}
          inputMode="decimal"
          after={massUnit()}
          onChange={(event) => setText(event.target.value)}
          onBlur={() => void submit()}
        />
      </form>
    </section>
  );
}

function Paper({ item }: { item: IngredientAnswer }) {
  const save = useSaveCertificate();
  const [error, setError] = useState<string>();
  return (
    <section aria-label="Certificate">
      <h3 className="text-label italic text-soft">The supplier's certificate, used by every formula</h3>
      <CertificateFields
        name={item.short_name}
        paper={(item.certificate as Certificate | null) ?? null}
        onChange={(paper) =>
          save.mutateAsync({ id: item.id, paper }).then(
            () => setError(undefined),
            (failure: unknown) => setError(messageOf(failure)),
          )
        }
      />
      {error && <p className="text-body text-rosy">{error}</p>}
    </section>
  );
}

function Names({ item }: { item: IngredientAnswer }) {
  const [text, setText] = useState("");
  const [error, setError] = useState<string>();
  const learn = useLearnName();
  const forget = useForgetName();
  const submit = async () => {
    if (!text.trim()) return;
    try {
      await learn.mutateAsync({ id: item.id, phrase: text });
      setText(emptied(text));
      setError(undefined);
    } catch (failure) {
      setError(messageOf(failure));
    }
  };
  return (
    <section aria-label="Names">
      <h3 className="text-label italic text-soft">Names the reader knows</h3>
      <p className="text-body">{item.synonyms.length ? item.synonyms.join(", ") : "Only its own."}</p>
      {item.learned.length > 0 && (
        <ul className="flex flex-wrap gap-x-4 pt-1 text-body">
          {item.learned.map((phrase) => (
            <li key={phrase}>
              <b className="font-semibold">{phrase}</b>{" "}
              <button
                type="button"
                className="border-b border-ink text-caption"
                onClick={() => forget.mutate({ id: item.id, phrase })}
              >
                forget <span className="sr-only">{phrase}</span>
              </button>
            </li>
          ))}
        </ul>
      )}
      <form
        className="flex items-end gap-4 pt-2"
        onSubmit={(event) => {
          event.preventDefault();
          void submit();
        }}
      >
        <Field
          className="flex-1"
          label="Another name for it"
          value={text}
          maxLength={100}
          error={error}
          onChange={(event) => setText(event.target.value)}
        />
        <Button type="submit">Learn it</Button>
      </form>
    </section>
  );
}

function Properties({ item }: { item: IngredientAnswer }) {
  return (
    <section aria-label="Properties" className="pt-8">
      <h3 className="text-label italic text-soft">What is known of it, and from where</h3>
      <table className="mt-1 w-full text-body">
        <thead className="sr-only">
          <tr>
            <th scope="col">Property</th>
            <th scope="col">Value</th>
            <th scope="col">Source</th>
            <th scope="col">Confidence</th>
          </tr>
        </thead>
        <tbody>
          {item.properties.map((property) => (
            <tr key={property.property} className="border-b-[0.9px] border-ink align-baseline">
              <th scope="row" className="whitespace-nowrap py-1 pr-4 text-left font-medium">
                {property.label}
              </th>
              <td className="whitespace-nowrap px-4 text-right text-reading font-semibold">
                {property.value ?? <span className="text-rosy">not known</span>}{" "}
                <span className="text-caption font-medium text-soft">{property.unit}</span>
              </td>
              <td className="text-caption text-soft">{property.source}</td>
              <td className="pl-4 text-right text-caption text-soft">{property.confidence}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
