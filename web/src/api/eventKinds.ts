/** Made by `make api-types` from the declarations in core/making; not edited by hand. */
export interface EventKind {
  /** Whether a tablet may keep it while the studio does not answer. */
  waits: boolean;
  /** Whether it goes in whatever has happened since. */
  always: boolean;
  /** Whether it ends the step in hand. */
  endsStep: boolean;
  /** Kind by which it is put right. */
  rightedBy: string;
}

export const BATCH_EVENTS: Readonly<Record<string, EventKind>> = {
  amended: { waits: false, always: true, endsStep: false, rightedBy: "amended" },
  back: { waits: true, always: false, endsStep: false, rightedBy: "done" },
  closed: { waits: false, always: false, endsStep: false, rightedBy: "amended" },
  conditions: { waits: true, always: false, endsStep: true, rightedBy: "back" },
  corrected: { waits: false, always: false, endsStep: false, rightedBy: "note" },
  done: { waits: true, always: false, endsStep: true, rightedBy: "back" },
  felt: { waits: true, always: false, endsStep: false, rightedBy: "felt" },
  held: { waits: false, always: true, endsStep: false, rightedBy: "settled" },
  lot: { waits: false, always: true, endsStep: false, rightedBy: "lot" },
  note: { waits: true, always: true, endsStep: false, rightedBy: "amended" },
  outcome: { waits: false, always: false, endsStep: false, rightedBy: "outcome" },
  photo: { waits: true, always: true, endsStep: false, rightedBy: "amended" },
  pieces: { waits: true, always: true, endsStep: false, rightedBy: "pieces" },
  rescued: { waits: false, always: false, endsStep: false, rightedBy: "back" },
  sampled: { waits: true, always: true, endsStep: false, rightedBy: "sampled" },
  settled: { waits: false, always: true, endsStep: false, rightedBy: "back" },
  skipped: { waits: true, always: false, endsStep: true, rightedBy: "back" },
  temperature: { waits: false, always: false, endsStep: false, rightedBy: "temperature" },
  timer: { waits: false, always: false, endsStep: false, rightedBy: "timer" },
  weighed: { waits: true, always: false, endsStep: true, rightedBy: "back" },
};

export const TRAY_EVENTS: Readonly<Record<string, EventKind>> = {
  amended: { waits: false, always: false, endsStep: false, rightedBy: "amended" },
  checked: { waits: false, always: false, endsStep: false, rightedBy: "checked" },
  done: { waits: false, always: false, endsStep: false, rightedBy: "undone" },
  moved: { waits: false, always: false, endsStep: false, rightedBy: "moved" },
  note: { waits: false, always: true, endsStep: false, rightedBy: "note" },
  opened: { waits: false, always: false, endsStep: false, rightedBy: "wrapped" },
  put: { waits: false, always: false, endsStep: false, rightedBy: "put" },
  undone: { waits: false, always: false, endsStep: false, rightedBy: "done" },
  weighed: { waits: false, always: true, endsStep: false, rightedBy: "amended" },
  wrapped: { waits: false, always: false, endsStep: false, rightedBy: "opened" },
};

export const TEST_EVENTS: Readonly<Record<string, EventKind>> = {
  amended: { waits: false, always: false, endsStep: false, rightedBy: "amended" },
  closed: { waits: false, always: false, endsStep: false, rightedBy: "amended" },
  foam: { waits: false, always: true, endsStep: false, rightedBy: "amended" },
  left: { waits: false, always: false, endsStep: false, rightedBy: "left" },
  note: { waits: false, always: true, endsStep: false, rightedBy: "note" },
  opened: { waits: false, always: false, endsStep: false, rightedBy: "note" },
  photo: { waits: true, always: true, endsStep: false, rightedBy: "note" },
  seen: { waits: false, always: false, endsStep: false, rightedBy: "seen" },
};
