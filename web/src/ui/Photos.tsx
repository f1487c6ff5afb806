import { messageOf, type PhotoOwner, photoAddress, usePhotos } from "../api";
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
  const photos = usePhotos(of, onKept);
  const onFile = async (file: File | undefined) => {
    if (!file || after === null) return;
    try {
      await photos.take(file, after);
    } catch (error) {
      say(messageOf(error), { asks: true });
    }
  };
  const waiting = photos.waiting.filter((photo) => photo.why === undefined).length;
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
      {photos.failing && waiting > 0 && (
        <p role="status" className="pt-2 text-body font-semibold text-rosy">
          The studio does not answer. {waiting} {waiting === 1 ? "photo is" : "photos are"} kept on this
          device and sent once it does.
        </p>
      )}
      {photos.waiting.map(
        (photo) =>
          photo.why && (
            <p key={photo.id} role="alert" className="pt-2 text-body text-rosy">
              A photo was not taken over: {photo.why}{" "}
              <button
                type="button"
                className="min-h-6 border-b border-ink text-ink"
                onClick={() => void photos.setAside(photo.id)}
              >
                Set it aside
              </button>
            </p>
          ),
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
