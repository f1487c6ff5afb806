import { useNavigate } from "react-router";
import { messageOf, useDeleteFormula, useRestoreFormula } from "../../api";
import { Menu, MenuItem, type Offer, useNotice, useOffers } from "../../ui";
import { useDesk } from "./DeskContext";
import { saveCsv, saveFile } from "./saveFile";

const PRINT_AFTER_MS = 200; // the menu is closed by then

/** What can be done to the whole formula; the palette offers the same. */
export function HeadMenu({ onKeep }: { onKeep: () => void }) {
  const { draft, answer, ingredients, sheets, addPortion } = useDesk();
  const navigate = useNavigate();
  const say = useNotice();
  const remove = useDeleteFormula();
  const restore = useRestoreFormula();
  const refused = (error: unknown) => say(messageOf(error), { asks: true });
  const onDelete = async () => {
    try {
      await remove.mutateAsync(answer.id);
      say(`"${draft.name}" is put aside.`, {
        action: {
          label: "Bring it back",
          run: () => restore.mutateAsync(answer.id).catch(refused),
        },
      });
      await navigate("/");
    } catch (error) {
      refused(error);
    }
  };
  const offers: Offer[] = [
    { words: "Rebalance…", hint: "Alt B", run: sheets.rebalance },
    { words: "Another portion", run: () => addPortion(false) },
    { words: "Make two halves of it", run: () => addPortion(true) },
    { words: "Scale to a mass…", run: sheets.scale },
    { words: "How it is made, used and paid for…", run: sheets.settings },
    { words: "What went wrong?", run: () => void navigate(`/clinic?formula=${answer.id}`) },
    { words: "Its label…", run: () => void navigate(`/formulas/${answer.id}/label`) },
    { words: "What it costs and what is left…", run: () => void navigate(`/formulas/${answer.id}/money`) },
    { words: "All in grams", run: () => sheets.showIn("g") },
    { words: "All in ounces", run: () => sheets.showIn("oz") },
    { words: "All in per cent", run: () => sheets.showIn("pct") },
    { words: "All in parts", run: () => sheets.showIn("part") },
    { words: "Keep this version…", run: onKeep },
    { words: "Save as a formula file", run: () => saveFile(draft, ingredients) },
    { words: "Save the lines as CSV", run: () => saveCsv(draft) },
    { words: "Print it", run: () => setTimeout(() => window.print(), PRINT_AFTER_MS) },
    { words: "Put it aside", run: () => void onDelete() },
  ];
  useOffers("formula", offers);
  return (
    <Menu label="More for this formula" trigger="···">
      {offers.map((offer) => (
        <MenuItem key={offer.words} hint={offer.hint} onSelect={offer.run}>
          {offer.words}
        </MenuItem>
      ))}
    </Menu>
  );
}
