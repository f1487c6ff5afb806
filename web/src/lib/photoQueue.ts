import { eventId } from "./askingKey";

/** Photos that the studio has not answered for yet: kept on this device, picture and all, until it has. */
export interface WaitingPhoto {
  id: string;
  /** Address part of what it is of: "batches/7", "tub-tests/3". */
  of: string;
  made_at: string;
  after: number;
  picture: Blob;
  why?: string;
}

const STORE = "photos";

function opened(): Promise<IDBDatabase> {
  return new Promise((resolve, reject) => {
    const asked = indexedDB.open("rosy-kettle", 1);
    asked.onupgradeneeded = () => asked.result.createObjectStore(STORE, { keyPath: "id" });
    asked.onsuccess = () => resolve(asked.result);
    asked.onerror = () => reject(asked.error);
  });
}

async function inStore<Found>(
  mode: IDBTransactionMode,
  ask: (store: IDBObjectStore) => IDBRequest<Found>,
): Promise<Found> {
  const database = await opened();
  try {
    return await new Promise<Found>((resolve, reject) => {
      const transaction = database.transaction(STORE, mode);
      const asked = ask(transaction.objectStore(STORE));
      transaction.oncomplete = () => resolve(asked.result);
      transaction.onabort = () => reject(transaction.error);
      transaction.onerror = () => reject(transaction.error);
    });
  } finally {
    database.close();
  }
}

export const photoNow = (of: string, after: number, picture: Blob): WaitingPhoto => ({
  id: eventId(),
  of,
  made_at: new Date().toISOString(),
  after,
  picture,
});

export const keepPhoto = (photo: WaitingPhoto) => inStore("readwrite", (store) => store.put(photo));
export const dropPhoto = (id: string) => inStore("readwrite", (store) => store.delete(id));

/** Photos of one thing that wait, in the order they were taken. */
export async function photosWaiting(of: string): Promise<WaitingPhoto[]> {
  const all = await inStore<WaitingPhoto[]>("readonly", (store) => store.getAll());
  return all
    .filter((photo) => photo.of === of)
    .sort((one, other) => one.made_at.localeCompare(other.made_at));
}
