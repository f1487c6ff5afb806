import { useCallback, useEffect, useRef, useState } from "react";
import { dropPhoto, keepPhoto, photoNow, photosWaiting, type WaitingPhoto } from "../lib/photoQueue";
import { askRaw, messageOf } from "./client";
import { isPassing, retryMs } from "./retry";

/** What a photo is of: a batch, or a test in the tub. */
export type PhotoOwner = { noun: "batches" | "tub-tests"; id: number };

const partOf = ({ noun, id }: PhotoOwner) => `${noun}/${id}`;

async function send({ of, after, id, made_at, picture }: WaitingPhoto): Promise<void> {
  const form = new FormData();
  form.set("photo", picture, "photo");
  const asked = new URLSearchParams({ after: String(after), id, made_at });
  await askRaw(`/api/${of}/photos?${asked}`, { method: "POST", body: form });
}

/** Photos taken here: each is kept on this device before it is sent, and until the studio has answered for it by its name. */
export function usePhotos(owner: PhotoOwner, onKept: () => Promise<unknown>) {
  const of = partOf(owner);
  const [waiting, setWaiting] = useState<readonly WaitingPhoto[]>([]);
  const [failed, setFailed] = useState(0);
  const sending = useRef(false);
  const kept = useRef(onKept);
  kept.current = onKept;

  const tell = useCallback(async () => {
    if (sending.current) return;
    sending.current = true;
    const next = async () => (await photosWaiting(of)).find((photo) => photo.why === undefined);
    try {
      for (let photo = await next(); photo; photo = await next()) {
        try {
          await send(photo);
          await dropPhoto(photo.id);
          await kept.current();
        } catch (error) {
          if (isPassing(error)) throw error;
          await keepPhoto({ ...photo, why: messageOf(error) });
        }
      }
      setFailed(0);
    } catch {
      setFailed((times) => times + 1); // the next try is made later
    } finally {
      sending.current = false;
      setWaiting(await photosWaiting(of).catch(() => []));
    }
  }, [of]);

  useEffect(() => {
    if (failed === 0) {
      void tell(); // left by a page before this one
      return;
    }
    const timer = setTimeout(() => void tell(), retryMs(failed));
    return () => clearTimeout(timer);
  }, [failed, tell]);

  const take = async (picture: Blob, after: number) => {
    const photo = photoNow(of, after, picture);
    try {
      await keepPhoto(photo);
    } catch {
      await send(photo); // a browser that keeps nothing: told at once or refused
      await kept.current();
      return;
    }
    await tell();
  };
  const setAside = async (id: string) => {
    await dropPhoto(id);
    setWaiting(await photosWaiting(of));
  };
  return { waiting, failing: failed > 0, take, setAside };
}

export const photoAddress = ({ noun, id }: PhotoOwner, name: string) => `/api/${noun}/${id}/photos/${name}`;
