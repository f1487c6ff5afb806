import { Toast } from "radix-ui";
import { createContext, type ReactNode, useCallback, useContext, useMemo, useState } from "react";
import { inUnits } from "../lib/units";

interface Notice {
  key: number;
  text: string;
  action?: { label: string; run: () => void } | undefined;
  asks: boolean;
}

type Say = (text: string, options?: { action?: Notice["action"]; asks?: boolean }) => void;
/** How long words stay; what can still be taken back stays longer: floury hands are slow to a screen. */
const [WORDS_MS, ACTION_MS] = [9_000, 60_000];
const NoticeContext = createContext<Say>(() => undefined);

/** Say one sentence at the foot of the page, with at most one thing to do about it. */
export const useNotice = () => useContext(NoticeContext);

export function NoticeProvider({ children }: { children: ReactNode }) {
  const [notices, setNotices] = useState<Notice[]>([]);
  const say = useCallback<Say>((text, options = {}) => {
    setNotices((before) => [
      ...before.filter((notice) => !(notice.action && options.action)).slice(-2),
      { key: (before.at(-1)?.key ?? 0) + 1, text, action: options.action, asks: options.asks ?? false },
    ]);
  }, []);
  const drop = (key: number) => setNotices((before) => before.filter((notice) => notice.key !== key));
  const value = useMemo(() => say, [say]);
  return (
    <NoticeContext.Provider value={value}>
      <Toast.Provider swipeDirection="down" label="Notice">
        {children}
        {notices.map((notice) => (
          <Toast.Root
            key={notice.key}
            duration={notice.action ? ACTION_MS : WORDS_MS}
            onOpenChange={(open) => !open && drop(notice.key)}
            className={`flex items-center gap-6 border-t-2 bg-lit px-5 py-3 ${notice.asks ? "border-rosy" : "border-ink"}`}
          >
            <Toast.Description className="text-body">{inUnits(notice.text)}</Toast.Description>
            {notice.action && (
              <Toast.Action altText={notice.action.label} asChild>
                <button
                  type="button"
                  className="border-b-2 border-ink text-body font-semibold"
                  onClick={notice.action.run}
                >
                  {notice.action.label}
                </button>
              </Toast.Action>
            )}
            <Toast.Close className="text-caption text-soft">Close</Toast.Close>
          </Toast.Root>
        ))}
        <Toast.Viewport className="no-print fixed bottom-6 left-14 z-50 flex max-w-[70vw] flex-col gap-2" />
      </Toast.Provider>
    </NoticeContext.Provider>
  );
}
