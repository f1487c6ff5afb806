import { useState } from "react";
import { Link } from "react-router";
import { messageOf, type TubTest, useSetOut } from "../../api";
import { askingKey } from "../../lib/askingKey";
import { fixed } from "../../lib/numbers";
import { Button, useNotice } from "../../ui";

/** What is left of a piece: how many baths that makes of it, and back on the rack with it. */
export function LeftPart({ test }: { test: TubTest }) {
  const setOut = useSetOut();
  const say = useNotice();
  const [key] = useState(askingKey);
  const [done, setDone] = useState(false);
  if (test.baths === null || !test.state.left_g) return null;
  const onSetOut = async () => {
    try {
      await setOut.mutateAsync({
        pieces: 1,
        name: `${test.name}, what is left`,
        key,
        ...(test.batch_id ? { batch_id: test.batch_id } : {}),
        ...(test.formula_id && !test.batch_id ? { formula_id: test.formula_id } : {}),
      });
      setDone(true);
    } catch (error) {
      say(messageOf(error), { asks: true });
    }
  };
  return (
    <p className="col-span-full flex flex-wrap items-baseline gap-4 text-reading">
      By what is left, one piece is good for {baths(test.baths)}.
      {done ? (
        <Link className="border-b-2 border-ink text-body" to="/rack">
          It lies on the rack
        </Link>
      ) : (
        <Button disabled={setOut.isPending} onClick={() => void onSetOut()}>
          Back on the rack with it
        </Button>
      )}
    </p>
  );
}

/** Whole baths on either side: of 2.9 the third is a thin one. */
function baths(each: number): string {
  const [least, most] = [Math.floor(each), Math.ceil(each)];
  if (most - least === 0) return least === 1 ? "one bath" : `${least} baths`;
  return `${least} to ${most} baths (${fixed(each, 1)} of this dose)`;
}
