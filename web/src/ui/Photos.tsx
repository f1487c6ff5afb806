import { messageOf, type PhotoOwner, photoAddress, sendPhoto } from "../api";
import { useNotice } from "./Notice";

interface PhotosProps {
  of: PhotoOwner;
  names: readonly string[];
  /** What it is of, in its description: "Batch", "Test". */
  what: string;
  /** The event it is taken after; null where none can be added any more. */
  after: number | null;
  onKept: () => Promise<unknown>;
}

/** The photos of a record, and one more. */
export function Photos({ of, names, what, after, onKept }: PhotosProps) {
  const say = useNotice();
  const onFile = async (file: File | undefined) => {
    if (!file || after === null) return;
    try {
      await sendPhoto(of, after, file);
      await onKept();
    } catch (error) {
      say(messageOf(error), { asks: true });
    }
  };
  return (
    <section aria-label="Photos" className="pt-6">
      {names.length > 0 && (
        <div className="flex flex-wrap gap-4">
          {names.map((name, index) => (
            <img
              key={name}
              src={photoAddress(of, name)}
              alt={`${what} ${of.id}, number ${index + 1}`}
              className="h-44 border border-ink"
            />
          ))}
        </div>
      )}
      {after !== null && (
        <label className="no-print inline-block min-h-6 cursor-pointer border-b border-ink pt-2 text-body focus-within:border-b-2">
          Add a photo
          <input
            type="file"
            accept="image/jpeg,image/png,image/webp"
            className="sr-only"
            onChange={(event) => void onFile(event.target.files?.[0])}
          />
        </label>
      )}
    </section>
  );
}
