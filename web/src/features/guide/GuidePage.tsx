import { Fragment, useEffect, useState } from "react";
import { Link, useParams } from "react-router";

const PAGES = import.meta.glob("../../../../docs/guide/*.md", { query: "?raw", import: "default" });
const PICTURES = import.meta.glob<string>("../../../../docs/screenshots/*.png", {
  query: "?url",
  import: "default",
  eager: true,
});
const IDS = Object.keys(PAGES)
  .map((path) => path.split("/").at(-1)?.replace(/\.md$/, "") ?? "")
  .sort();

/** The guide for makers, in the order of the work; it comes with the studio and needs no network. */
export function GuidePage() {
  const id = useParams().page ?? IDS[0] ?? "";
  const [text, setText] = useState("");
  useEffect(() => {
    const load = PAGES[`../../../../docs/guide/${id}.md`];
    setText("");
    void load?.().then((found) => setText(String(found)));
  }, [id]);
  return (
    <div className="grid grid-cols-[260px_minmax(0,760px)] gap-14 pb-16 pl-14 pr-9 pt-2 max-[900px]:grid-cols-1">
      <nav aria-label="Guide" className="pt-14 text-row">
        <ul>
          {IDS.map((each) => (
            <li key={each} className="border-b-[0.9px] border-ink py-1">
              <Link
                aria-current={each === id ? "page" : undefined}
                className="aria-[current=page]:font-bold"
                to={`/guide/${each}`}
              >
                {title(each)}
              </Link>
            </li>
          ))}
          <li className="py-1">
            <Link className="underline underline-offset-4" to="/welcome">
              Five questions, and a tour
            </Link>
          </li>
        </ul>
      </nav>
      <article className="text-reading">
        {PAGES[`../../../../docs/guide/${id}.md`] ? <Markdown text={text} /> : <h1>There is no such page</h1>}
      </article>
    </div>
  );
}

const title = (id: string): string => {
  const words = id.replace(/^\d+-/, "").replaceAll("-", " ");
  return words.charAt(0).toUpperCase() + words.slice(1);
};

/** The little of Markdown the guide is written in: headings, numbered steps, pictures, paragraphs, code. */
function Markdown({ text }: { text: string }) {
  const blocks = text.split(/\n(?=\d+\. )|\n\n/).filter((block) => block.trim());
  return blocks.map((block, index) => (
    // biome-ignore lint/suspicious/noArrayIndexKey: the guide does not change while it is read
    <Fragment key={index}>{blockOf(block.trim())}</Fragment>
  ));
}

function blockOf(block: string) {
  if (block.startsWith("# ")) return <h1>{block.slice(2)}</h1>;
  if (block.startsWith("```"))
    return (
      <pre className="overflow-x-auto bg-lit p-3 text-label">{block.replace(/^```\n?|\n?\s*```$/g, "")}</pre>
    );
  const picture = /^!\[([^\]]*)\]\(\.\.\/screenshots\/([\w-]+\.png)\)$/.exec(block);
  if (picture)
    return (
      <img
        className="mt-3 ml-10 block w-full max-w-[720px] border border-ink"
        src={PICTURES[`../../../../docs/screenshots/${picture[2]}`]}
        alt={picture[1]}
        width={1280}
        height={800}
        loading="lazy"
      />
    );
  const step = /^(\d+)\. ([\s\S]*)$/.exec(block);
  if (step)
    return (
      <p className="flex gap-4 pt-3">
        <b className="w-6 shrink-0 text-right">{step[1]}</b>
        <span>{words(step[2] ?? "")}</span>
      </p>
    );
  return <p className="pt-3">{words(block)}</p>;
}

function words(text: string) {
  return text.split(/(\*\*[^*]+\*\*|\*[^*]+\*|`[^`]+`)/).map((part, index) => {
    const key = `${index}${part}`;
    if (part.startsWith("**")) return <b key={key}>{part.slice(2, -2)}</b>;
    if (part.startsWith("*")) return <i key={key}>{part.slice(1, -1)}</i>;
    if (part.startsWith("`")) return <code key={key}>{part.slice(1, -1)}</code>;
    return part;
  });
}
