import { emptyFormula } from "./emptyFormula";
import { useSettings } from "./week";

/** An empty formula in the workshop's air of this month, where the maker has said it. */
export function useNewFormula() {
  const settings = useSettings();
  return (name?: string) => emptyFormula(name, settings.data?.rooms?.[new Date().getMonth()]);
}
