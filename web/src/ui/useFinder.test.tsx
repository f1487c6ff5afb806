// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { useState } from "react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { useFinder } from "./useFinder";

afterEach(cleanup);

const SHELF = ["kaolin", "kokum butter", "kelp"];

function Field({ onPick, firstIsMeant }: { onPick: (name: string) => void; firstIsMeant?: boolean }) {
  const [typed, setTyped] = useState("");
  const found = typed ? SHELF.filter((name) => name.startsWith(typed)) : [];
  const finder = useFinder({
    label: "Name",
    listLabel: "Shelf",
    typed,
    onType: setTyped,
    found,
    onPick,
    ...(firstIsMeant === undefined ? {} : { firstIsMeant }),
  });
  return (
    <>
      <input {...finder.inputProps()} />
      <div {...finder.listProps()}>
        {found.map((name, at) => (
          <div key={name} {...finder.optionProps(name, at)}>
            {name}
          </div>
        ))}
      </div>
    </>
  );
}

function typing(text: string, firstIsMeant?: boolean) {
  const onPick = vi.fn();
  render(<Field onPick={onPick} {...(firstIsMeant === undefined ? {} : { firstIsMeant })} />);
  const field = screen.getByRole("combobox", { name: "Name" });
  fireEvent.change(field, { target: { value: text } });
  return { field, onPick, key: (key: string) => fireEvent.keyDown(field, { key }) };
}

describe("finding by a few letters", () => {
  it("takes the first hit by Enter, or the one the arrows point at", () => {
    const first = typing("k");
    first.key("Enter");
    expect(first.onPick).toHaveBeenLastCalledWith("kaolin");
    first.key("ArrowDown");
    expect(screen.getByRole("option", { selected: true }).textContent).toBe("kokum butter");
    first.key("Enter");
    expect(first.onPick).toHaveBeenLastCalledWith("kokum butter");
  });
  it("names the field, the list and the option in hand, as the ARIA combobox pattern asks", () => {
    const { field, key } = typing("k");
    key("ArrowDown");
    expect(field.getAttribute("aria-expanded")).toBe("true");
    expect(field.getAttribute("aria-controls")).toBe(screen.getByRole("listbox", { name: "Shelf" }).id);
    expect(field.getAttribute("aria-activedescendant")).toBe(
      screen.getByRole("option", { selected: true }).id,
    );
  });
  it("takes nothing by Enter where the text is no name yet, until an arrow points at something", () => {
    const { onPick, key } = typing("k", false);
    key("Enter");
    expect(onPick).not.toHaveBeenCalled();
    key("ArrowDown");
    key("Enter");
    expect(onPick).toHaveBeenCalledWith("kaolin");
  });
  it("forgets where the arrows were as soon as more is typed, and takes a click", () => {
    const { field, onPick, key } = typing("k");
    key("ArrowDown");
    fireEvent.change(field, { target: { value: "ke" } });
    expect(screen.getByRole("option", { selected: true }).textContent).toBe("kelp");
    fireEvent.click(screen.getByRole("option", { name: "kelp" }));
    expect(onPick).toHaveBeenCalledWith("kelp");
  });
});
