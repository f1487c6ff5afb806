import type { ReactNode } from "react";
import type { Draft } from "../draft";
import { Inline } from "../lines";

export type Patch = <K extends "piece" | "use" | "room" | "heat" | "making">(
  key: K,
  part: Partial<Draft[K]>,
) => void;

export function Sentence({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section aria-label={title} className="border-b-[0.9px] border-ink py-2">
      <h3 className="text-label italic leading-5 text-soft">{title}</h3>
      <p>{children}</p>
    </section>
  );
}

export function Choice({
  label,
  value,
  assumed,
  options,
  onChange,
}: {
  label: string;
  value: string | null;
  assumed: string | undefined;
  options: readonly (readonly [string, string])[];
  onChange: (value: string | null) => void;
}) {
  return (
    <select
      aria-label={label}
      className="written font-semibold"
      value={value ?? assumed ?? ""}
      onChange={(event) => onChange(event.target.value || null)}
    >
      {options.map(([id, words]) => (
        <option key={id} value={id}>
          {words}
        </option>
      ))}
    </select>
  );
}

/** Money and minutes are kept as decimal text, never as a binary number. */
export function Paid({
  label,
  making,
  name,
  patch,
}: {
  label: string;
  making: Draft["making"];
  name: keyof Draft["making"];
  patch: Patch;
}) {
  return (
    <Inline
      label={label}
      value={Number(making[name])}
      assumed={0}
      zero
      onChange={(value) => patch("making", { [name]: value === null ? "0" : String(value) })}
    />
  );
}

/** One of the workshop's own, taken over with a press: (as in …). */
export function Pick({
  label,
  none,
  options,
  onPick,
}: {
  label: string;
  none: string;
  options: readonly string[];
  onPick: (index: number) => void;
}) {
  if (options.length === 0) return null;
  return (
    <>
      {" "}
      (as in{" "}
      <select
        aria-label={label}
        className="written max-w-40"
        value=""
        onChange={(event) => onPick(Number(event.target.value))}
      >
        <option value="">{none}</option>
        {options.map((option, index) => (
          <option key={option} value={index}>
            {option}
          </option>
        ))}
      </select>
      )
    </>
  );
}
