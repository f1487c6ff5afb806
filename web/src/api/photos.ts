import { askRaw } from "./client";

/** What a photo is of: a batch, or a test in the tub. */
export type PhotoOwner = { noun: "batches" | "tub-tests"; id: number };

/** Send a photo, taken after an event that was seen. */
export async function sendPhoto({ noun, id }: PhotoOwner, after: number, file: File): Promise<void> {
  const form = new FormData();
  form.set("photo", file);
  await askRaw(`/api/${noun}/${id}/photos?after=${after}`, { method: "POST", body: form });
}

export const photoAddress = ({ noun, id }: PhotoOwner, name: string) => `/api/${noun}/${id}/photos/${name}`;
