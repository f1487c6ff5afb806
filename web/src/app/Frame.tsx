import { useEffect, useState } from "react";
import { Link, Outlet, useLocation } from "react-router";
import { KettleMark } from "../ui";
import { Palette } from "./Palette";
import { chooseTheme, chosenTheme, type Theme } from "./theme";

const PLACES = [
  { to: "/", label: "Desk", own: /^\/($|formulas|recipes)/ },
  { to: "/plan", label: "Plan", own: /^\/plan/ },
  { to: "/week", label: "Week", own: /^\/week/ },
  { to: "/bench", label: "Bench", own: /^\/(bench|batches)/ },
  { to: "/rack", label: "Rack", own: /^\/rack/ },
  { to: "/tub", label: "Tub", own: /^\/(tub|learning)/ },
  { to: "/journal", label: "Journal", own: /^\/journal/ },
  { to: "/pantry", label: "Pantry", own: /^\/pantry/ },
] as const;
const NEXT_THEME: Record<Theme, Theme> = { system: "light", light: "dark", dark: "system" };
const THEME_WORD: Record<Theme, string> = { system: "as the system", light: "light", dark: "dark" };

/** The sheet every page lies on: mark, places of work, the light. */
export function Frame() {
  const { pathname } = useLocation();
  const [theme, setTheme] = useState(chosenTheme);
  useEffect(() => chooseTheme(theme), [theme]);
  return (
    <div className="flex min-h-screen flex-col">
      <a
        className="sr-only focus:not-sr-only focus:absolute focus:left-14 focus:top-2 focus:bg-lit focus:p-2"
        href="#page"
      >
        To the page
      </a>
      <header className="no-print flex h-11 shrink-0 items-center justify-between pl-14 pr-9">
        <Link to="/" className="flex items-center gap-3 text-label" aria-label="Rosy Kettle, all formulas">
          <KettleMark />
          <span className="font-semibold">Rosy Kettle</span>
        </Link>
        <div className="flex items-baseline gap-7">
          <nav aria-label="Places of work">
            <ul className="flex gap-7 text-label">
              {PLACES.map((place) => (
                <li key={place.to}>
                  <Link
                    to={place.to}
                    aria-current={place.own.test(pathname) ? "page" : undefined}
                    className="py-1 text-soft aria-[current=page]:border-b-2 aria-[current=page]:border-ink aria-[current=page]:font-bold aria-[current=page]:text-ink hover:text-ink"
                  >
                    {place.label}
                  </Link>
                </li>
              ))}
            </ul>
          </nav>
          <Link
            to="/settings"
            aria-current={pathname === "/settings" ? "page" : undefined}
            className="text-caption text-soft hover:text-ink aria-[current=page]:font-bold aria-[current=page]:text-ink"
          >
            Settings
          </Link>
          <Palette />
          <button
            type="button"
            className="text-caption text-soft hover:text-ink"
            onClick={() => setTheme(NEXT_THEME[theme])}
          >
            Light: {THEME_WORD[theme]}
          </button>
        </div>
      </header>
      <main id="page" className="flex min-h-0 flex-1 flex-col">
        <Outlet />
      </main>
    </div>
  );
}
