import { type Tray, type TrayHappening, useTrayHappens } from "../../api";
import { useActInTurn, useNotice } from "../../ui";

/** Lets something happen to a tray; what can be taken back is offered back. */
export type TrayAct = (event: TrayHappening, undo?: TrayHappening) => Promise<void>;

export function useTrayAct(tray: Tray): TrayAct {
  const happen = useTrayHappens();
  const say = useNotice();
  const act = useActInTurn(
    tray,
    (after, event: TrayHappening) => happen.mutateAsync({ id: tray.id, after, event }),
    "The tray has moved on; this is how it stands now.",
  );
  return async (event, undo) => {
    if ((await act(event)) && undo)
      say("Done.", { action: { label: "Take it back", run: () => void act(undo) } });
  };
}
