const WORDS: Record<string, string> = {
  "unknown-cause": "something else",
  "none-of-these": "none of these",
  "high-bath-ph": "a bath too alkaline",
  "mica-without-emulsifier": "mica without an emulsifier",
};

/** A cause as it is said: its id in words. */
export const causeWords = (id: string): string => WORDS[id] ?? id.replaceAll("-", " ");
