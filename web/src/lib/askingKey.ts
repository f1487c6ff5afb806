/** A name for one asking, so that asking twice is done once; also where the page has no secure context. */
export const askingKey = () =>
  `${Date.now().toString(36)}-${Math.floor(Math.random() * 2 ** 52).toString(36)}-${Math.floor(Math.random() * 2 ** 52).toString(36)}`;
