/** Search as a maker types: the start of a name first, then the start of a word, then anywhere. */
export interface Searchable {
  id: string;
  short_name: string;
  name: string;
  inci: string;
  synonyms: readonly string[];
}

function rank(text: string, query: string): number {
  const lower = text.toLowerCase();
  if (lower === query) return 0;
  if (lower.startsWith(query)) return 1;
  if (lower.includes(` ${query}`)) return 2;
  return lower.includes(query) ? 3 : Number.POSITIVE_INFINITY;
}

export function searchIngredients<T extends Searchable>(all: readonly T[], text: string, most = 8): T[] {
  const query = text.trim().toLowerCase();
  if (!query) return all.slice(0, most);
  return all
    .map((item) => ({
      item,
      score: Math.min(
        rank(item.short_name, query),
        ...item.synonyms.map((name) => rank(name, query) + 0.2),
        rank(item.name, query) + 0.4,
        rank(item.inci, query) + 0.6,
      ),
    }))
    .filter(({ score }) => Number.isFinite(score))
    .sort((a, b) => a.score - b.score || a.item.short_name.length - b.item.short_name.length)
    .slice(0, most)
    .map(({ item }) => item);
}
