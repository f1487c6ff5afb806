/** What a field holds once what stood in it is kept: nothing, or what was typed while it was being kept. */
export const emptied = (kept: string) => (now: string) => (now === kept ? "" : now);
