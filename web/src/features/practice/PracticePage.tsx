import { Link, useNavigate } from "react-router";
import { messageOf, useBeginRun, usePracticeBowls, usePracticeRuns } from "../../api";
import { askingKey } from "../../lib/askingKey";
import { fixed } from "../../lib/numbers";
import { useNotice } from "../../ui";

const LEVELS = ["", "for beginners", "for practised hands", "for market eve"];
const SEEDS = 100_000;

/** Bowls to practise at, each with something that is not told; nothing here touches the studio. */
export function PracticePage() {
  const bowls = usePracticeBowls();
  const runs = usePracticeRuns();
  const begin = useBeginRun();
  const navigate = useNavigate();
  const say = useNotice();
  const onBegin = async (scenario: string, seed: number) => {
    try {
      const run = await begin.mutateAsync({ scenario, seed, key: askingKey() });
      await navigate(`/practice/${run.id}`);
    } catch (error) {
      say(messageOf(error), { asks: true });
    }
  };
  return (
    <div className="pb-16 pl-14 pr-9 pt-2">
      <h1>Practice</h1>
      <p className="flex flex-wrap gap-x-6 text-row text-soft">
        A bowl with something hidden in it: judge, correct in small steps, decide when to stop. No stock, no
        journal, no learning is touched.
        <Link className="underline underline-offset-4" to="/practice/eye">
          Train the eye
        </Link>
        <Link className="underline underline-offset-4" to="/clinic">
          What went wrong?
        </Link>
      </p>
      {bowls.error && <p className="text-rosy">{messageOf(bowls.error)}</p>}
      <ul className="grid grid-cols-2 gap-x-14 pt-4 max-[1000px]:grid-cols-1">
        {bowls.data?.map((bowl) => (
          <li key={bowl.id} className="border-b-[0.9px] border-ink py-3">
            <p className="text-reading font-semibold">{bowl.title}</p>
            <p className="text-body">{bowl.story}</p>
            <p className="flex flex-wrap items-center gap-x-5 text-body">
              <span className="text-soft">
                {bowl.method}, {LEVELS[bowl.level]}
              </span>
              <button
                type="button"
                className="min-h-12 border-b-2 border-ink px-2 font-semibold"
                disabled={begin.isPending}
                onClick={() => void onBegin(bowl.id, 0)}
              >
                Take this bowl
              </button>
              <button
                type="button"
                className="min-h-12 border-b border-ink px-2"
                disabled={begin.isPending}
                onClick={() => void onBegin(bowl.id, 1 + Math.floor(Math.random() * SEEDS))}
              >
                Another one like it
              </button>
            </p>
          </li>
        ))}
      </ul>
      {runs.data && runs.data.length > 0 && (
        <section aria-label="Earlier runs" className="pt-8">
          <h2 className="text-row italic text-soft">Practised before</h2>
          <ul className="text-body">
            {runs.data.map((run) => (
              <li key={run.id} className="flex flex-wrap gap-x-6 border-b-[0.9px] border-ink py-1">
                <Link className="underline underline-offset-4" to={`/practice/${run.id}`}>
                  {run.title}
                  {run.seed > 0 && `, another one (${run.seed})`}
                </Link>
                <span className="text-soft">{run.created_at.slice(0, 10)}</span>
                <b>{run.score === null ? "still in the bowl" : `${fixed(run.score, 0)} of 100`}</b>
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}
