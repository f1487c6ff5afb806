import { WATERS } from "../lib/waters";

/** The kinds of tap water, as options of a select. */
export function WaterOptions() {
  return WATERS.map(([id, words]) => (
    <option key={id} value={id}>
      {words}
    </option>
  ));
}
