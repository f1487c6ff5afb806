/** Kinds of tap water, softest first as makers name them. */
export const WATERS = [
  ["soft", "soft"],
  ["moderate", "moderate"],
  ["hard", "hard"],
  ["very-hard", "very hard"],
  ["softened", "softened"],
  ["ro-rain", "rain or filtered"],
] as const;
