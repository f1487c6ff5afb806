import { ON_RACK_AT_ONCE, useKeepPlace, useRack } from "../../api";
import { KeptNumber } from "../../ui";

/** Where pieces dry, and how many trays each place holds. */
export function Trays() {
  const rack = useRack(false, "", ON_RACK_AT_ONCE);
  const keep = useKeepPlace();
  const places = rack.data?.places ?? [];
  return (
    <section aria-label="Trays" className="text-row">
      <h2 className="text-label italic text-soft">Trays, by the place they dry in</h2>
      {places.map((place) => (
        <p key={place.name} className="flex items-baseline gap-3 border-b-[0.9px] border-ink py-1">
          <span className="flex-1">"{place.name}"</span>
          <KeptNumber
            label={`Trays in ${place.name}`}
            value={place.trays}
            least={1}
            most={1000}
            whole
            empty={false}
            className="w-16 text-center"
            onKeep={(trays) => keep.mutate({ name: place.name, trays: Number(trays) })}
          />
          trays, {place.taken} taken now
        </p>
      ))}
    </section>
  );
}
