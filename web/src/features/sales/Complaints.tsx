import { useState } from "react";
import { Link } from "react-router";
import { type Complaint, messageOf, useChangeComplaint, useComplaints, useComplaintTrends } from "../../api";
import { Button, Field, SearchField, Sheet } from "../../ui";

/** What was complained of, the newest first, and what comes up most. */
export function Complaints() {
  const [search, setSearch] = useState("");
  const [open, setOpen] = useState<Complaint>();
  const told = useComplaints(search);
  const trends = useComplaintTrends();
  const items = told.data?.pages.flatMap((page) => page.items) ?? [];
  const often = (trends.data ?? []).filter((each) => each.count > 1).slice(0, 6);
  return (
    <section aria-label="Complaints" className="pt-10">
      <p className="flex flex-wrap items-baseline gap-x-6">
        <h2 className="text-row italic text-soft">Complaints</h2>
        <SearchField label="Search complaints" placeholder="Words" value={search} onSearch={setSearch} />
      </p>
      {told.error && <p className="text-body text-rosy">{messageOf(told.error)}</p>}
      {often.length > 0 && (
        <p className="text-body">
          More than once:{" "}
          {often
            .map(
              (each) =>
                `${each.of} ${each.name} ${each.count} times${each.serious ? `, ${each.serious} serious` : ""}`,
            )
            .join("; ")}
          .
        </p>
      )}
      {told.data && items.length === 0 && (
        <p className="text-body">{search ? `Nothing by "${search}".` : "Nobody has complained yet."}</p>
      )}
      <ul className="text-body">
        {items.map((each) => (
          <li
            key={each.id}
            className="flex flex-wrap items-baseline gap-x-5 border-b-[0.9px] border-ink py-1"
          >
            <b>{each.kind}</b>
            <span className="max-w-[520px]">{each.what}</span>
            <span className="text-soft">
              {each.who && `${each.who}, `}
              {each.at.slice(0, 10)}
            </span>
            {each.batch_id && (
              <Link className="underline underline-offset-4" to={`/batches/${each.batch_id}`}>
                batch {each.batch_id}
              </Link>
            )}
            {each.report_by && (
              <span className="font-semibold text-rosy">
                serious; in the US reported by {each.report_by} (15 business days)
              </span>
            )}
            {each.done ? (
              <span className="text-soft">Done: {each.done}</span>
            ) : (
              <Button onClick={() => setOpen(each)}>What was done</Button>
            )}
          </li>
        ))}
      </ul>
      {told.hasNextPage && <Button onClick={() => void told.fetchNextPage()}>Older ones</Button>}
      {open && <Done of={open} onClose={() => setOpen(undefined)} />}
    </section>
  );
}

function Done({ of, onClose }: { of: Complaint; onClose: () => void }) {
  const [done, setDone] = useState("");
  const change = useChangeComplaint();
  return (
    <Sheet
      onClose={onClose}
      title="What was done"
      lead={of.what}
      submit="Keep it"
      onSubmit={async () => {
        if (!done.trim()) return "What was done? A sentence is enough.";
        await change.mutateAsync({ id: of.id, done });
        onClose();
        return "";
      }}
    >
      <Field
        className="w-full"
        label="Done"
        value={done}
        maxLength={2000}
        onChange={(event) => setDone(event.target.value)}
      />
    </Sheet>
  );
}
