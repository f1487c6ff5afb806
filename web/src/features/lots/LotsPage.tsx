import { useState } from "react";
import { Link } from "react-router";
import { type Lot, messageOf, STOCK_ADDRESSES, useLots } from "../../api";
import { useSettled } from "../../lib/useSettled";
import { Button, PageHead, SearchField } from "../../ui";
import { ImportSheet } from "./ImportSheet";
import { Jar } from "./Jar";
import { LotSheet } from "./LotSheet";

/** The jars: shelves in section, each as full as its lot. */
export function LotsPage() {
  const [search, setSearch] = useState("");
  const [open, setOpen] = useState<"lot" | "import" | null>(null);
  const lots = useLots(useSettled(search.trim()));
  const rows = lots.data?.pages.flatMap((page) => page.items) ?? [];
  return (
    <div className="pb-16 pl-14 pr-9 pt-2">
      <PageHead
        title="Jars"
        lead={
          <>
            {lots.data ? summary(rows) : "Opening…"}{" "}
            <Link className="underline underline-offset-4" to="/pantry">
              The Pantry
            </Link>
          </>
        }
      >
        <SearchField
          label="Search lots"
          placeholder="Code, supplier, ingredient"
          value={search}
          onSearch={setSearch}
        />
        <a className="border-b-[0.9px] border-ink text-body" href={STOCK_ADDRESSES.csv} download>
          CSV
        </a>
        <a className="border-b-[0.9px] border-ink text-body" href={STOCK_ADDRESSES.xlsx} download>
          XLSX
        </a>
        <Button onClick={() => setOpen("import")}>Take over a list</Button>
        <Button primary onClick={() => setOpen("lot")}>
          Enter a purchase
        </Button>
      </PageHead>
      {lots.error && <p className="pt-6 text-reading text-rosy">{messageOf(lots.error)}</p>}
      {lots.data && rows.length === 0 && (
        <p className="pt-8 text-reading">
          {search
            ? `No jar speaks of "${search}".`
            : "No jar yet. Enter what you buy with its lot code, or take over a supplier's list."}
        </p>
      )}
      <ul
        aria-label="Jars"
        className="grid grid-cols-[repeat(auto-fill,minmax(150px,1fr))] gap-x-0 gap-y-8 pt-8"
      >
        {rows.map((lot) => (
          <li key={lot.id} className="border-b-[3px] border-ink">
            <Link to={`/pantry/lots/${lot.id}`} className="block text-center hover:bg-lit">
              <Jar lot={lot} />
              <span className="block truncate px-1 text-body font-semibold">{lot.name}</span>
              <span className="block truncate px-1 text-caption text-soft">{lot.code}</span>
              {lot.said.map((word) => (
                <span key={word.code} className="block px-1 text-caption font-semibold text-rosy">
                  {SHORT[word.code] ?? word.text}
                </span>
              ))}
            </Link>
          </li>
        ))}
      </ul>
      {lots.hasNextPage && <Button onClick={() => void lots.fetchNextPage()}>Older jars</Button>}
      {open === "lot" && <LotSheet onClose={() => setOpen(null)} />}
      {open === "import" && <ImportSheet onClose={() => setOpen(null)} />}
    </div>
  );
}

const SHORT: Record<string, string> = {
  expired: "past its day",
  expires_soon: "use it soon",
  nearly_out: "nearly out",
  below_nothing: "count it",
  open_long: "open long",
};

function summary(rows: Lot[]): string {
  const worth = rows.filter((lot) => lot.said.length > 0).length;
  return `${rows.length} ${rows.length === 1 ? "jar" : "jars"}${worth ? `, ${worth} to be looked at` : ""}.`;
}
