/** A name for one asking, so that asking twice is done once; also where the page has no secure context. */
export const askingKey = () =>
  `${Date.now().toString(36)}-${Math.floor(Math.random() * 2 ** 52).toString(36)}-${Math.floor(Math.random() * 2 ** 52).toString(36)}`;

/** A name of its own for an event (RFC 9562, version 4), given where it is made; also where the page has no secure context. */
export function eventId(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  bytes[6] = ((bytes[6] ?? 0) & 0x0f) | 0x40;
  bytes[8] = ((bytes[8] ?? 0) & 0x3f) | 0x80;
  const hex = [...bytes].map((byte) => byte.toString(16).padStart(2, "0")).join("");
  return [hex.slice(0, 8), hex.slice(8, 12), hex.slice(12, 16), hex.slice(16, 20), hex.slice(20)].join("-");
}

/** An event as it is made: with its own name and the moment, by this device's clock. */
export const made = <Event extends object>(event: Event): Event & { id: string; made_at: string } => ({
  ...event,
  id: eventId(),
  made_at: new Date().toISOString(),
});
