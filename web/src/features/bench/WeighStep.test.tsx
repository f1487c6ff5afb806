// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render } from "@testing-library/react";
import type { ComponentProps } from "react";
import { describe, expect, it, vi } from "vitest";
import type { Batch, BenchStep, DeviceReading } from "../../api";
import { NoticeProvider } from "../../ui";
import { WeighStep } from "./WeighStep";

type Props = ComponentProps<typeof WeighStep>;

const onScale = (value: number, stable = true): Props["devices"] => ({
  scale: { device: "scale", value, stable, fault: null, at_ms: 0 } as unknown as DeviceReading,
  thermometer: null,
  hygrometer: null,
  live: true,
});

/** One line of 100 g with a tolerance of 1 g, and what the scale shows, one reading after the other. */
function weigh([first = onScale(0), ...others]: Props["devices"][]) {
  const act = vi.fn().mockResolvedValue(true);
  const step = { key: "body/0", target_g: 100, tolerance_g: 1 } as BenchStep;
  const queries = new QueryClient();
  const page = (devices: Props["devices"]) => (
    <QueryClientProvider client={queries}>
      <NoticeProvider>
        <WeighStep
          batch={{ id: 1 } as Batch}
          step={step}
          devices={devices}
          ingredients={new Map()}
          act={act}
          onBack={() => {}}
          onSkip={() => {}}
        />
      </NoticeProvider>
    </QueryClientProvider>
  );
  const shown = render(page(first));
  for (const devices of others) shown.rerender(page(devices));
  shown.unmount();
  return act;
}

const still = (value: number, times: number) => Array.from({ length: times }, () => onScale(value));

describe("a weighing", () => {
  it("is kept by itself, once, when it has stood still within its tolerance", () => {
    const act = weigh([onScale(40, false), ...still(99.4, 4)]);
    expect(act).toHaveBeenCalledTimes(1);
    expect(act).toHaveBeenCalledWith({ kind: "weighed", step: "body/0", actual_g: 99.4, source: "scale" });
  });
  it("waits while the reading moves, is off, or has stood for too short a time", () => {
    expect(
      weigh([onScale(0), onScale(99.4, false), onScale(99.8, false), onScale(100, false)]),
    ).not.toHaveBeenCalled();
    expect(weigh([onScale(0), ...still(98.9, 9)])).not.toHaveBeenCalled();
    expect(weigh([onScale(0), ...still(100, 3)])).not.toHaveBeenCalled();
  });
  it("does not take what the line before left on the scale", () => {
    expect(weigh(still(100, 9))).not.toHaveBeenCalled();
  });
});
