import { useNavigate } from "react-router";
import { type Batch, messageOf, useSetOut } from "../../api";
import { useNotice } from "../../ui";

/** Sets a batch's pieces out on the rack and goes there; asked twice, they are set out once. */
export function useSetOutBatch(batch: Batch) {
  const setOut = useSetOut();
  const navigate = useNavigate();
  const say = useNotice();
  return async () => {
    try {
      const pieces = batch.pieces_now;
      await setOut.mutateAsync({ batch_id: batch.id, pieces, key: `rack-batch-${batch.id}` });
      await navigate("/rack");
    } catch (error) {
      say(messageOf(error), { asks: true });
    }
  };
}
