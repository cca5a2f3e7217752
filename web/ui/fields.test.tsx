// @vitest-environment jsdom
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it, vi } from "vitest";
import { DEFAULT_SETTINGS } from "../../contract/settings.ts";
import { bearingAndElevation, type Direction } from "../../core/space/directions.ts";
import { SettingsContext } from "../lib/show.ts";
import { DirectionFields } from "./DirectionFields.tsx";
import { Choice, NumberField } from "./fields.tsx";
import { LengthField } from "./LengthField.tsx";
import { MassField } from "./MassField.tsx";

afterEach(cleanup);

describe("a number field", () => {
  const shown = (onChange: (value: number) => void) =>
    render(<NumberField label="Edition" value={6} least={1} most={100} onChange={onChange} />);

  it("takes a number that is right", async () => {
    const onChange = vi.fn();
    shown(onChange);
    await userEvent.clear(screen.getByLabelText("Edition"));
    await userEvent.type(screen.getByLabelText("Edition"), "12");
    expect(onChange.mock.calls.at(-1)).toEqual([12]);
  });

  it("says from where to where, and takes nothing, while it is wrong or empty", async () => {
    const onChange = vi.fn();
    shown(onChange);
    const field = screen.getByLabelText("Edition");
    await userEvent.clear(field);
    expect(screen.getByText("From 1 to 100.")).toBeDefined();
    await userEvent.type(field, "0");
    expect(field.getAttribute("aria-invalid")).toBe("true");
    expect(onChange).not.toHaveBeenCalled();
  });

  it("goes up and down by its step with the arrows, and no farther than it may", async () => {
    const onChange = vi.fn();
    shown(onChange);
    const field = screen.getByLabelText("Edition");
    await userEvent.click(field);
    await userEvent.keyboard("{ArrowUp}");
    expect(onChange.mock.calls.at(-1)).toEqual([7]);
    await userEvent.keyboard("{Shift>}{ArrowDown}{/Shift}");
    expect(onChange.mock.calls.at(-1)).toEqual([1]);
  });

  it("follows the value when it is changed elsewhere", () => {
    const { rerender } = shown(() => {});
    rerender(<NumberField label="Edition" value={30} least={1} most={100} onChange={() => {}} />);
    expect((screen.getByLabelText("Edition") as HTMLInputElement).value).toBe("30");
  });
});

describe("a length field", () => {
  it("is typed in inches where the shop thinks in them, and hands over millimetres", async () => {
    const onChange = vi.fn();
    render(
      <SettingsContext value={{ ...DEFAULT_SETTINGS, memberName: "", units: "imperial" }}>
        <LengthField label="Rim" valueMm={50.8} leastMm={0} mostMm={500} onChange={onChange} />
      </SettingsContext>,
    );
    const field = screen.getByLabelText("Rim") as HTMLInputElement;
    expect(Number(field.value)).toBeCloseTo(2, 2);
    await userEvent.clear(field);
    await userEvent.type(field, "3");
    expect(onChange.mock.calls.at(-1)?.[0]).toBeCloseTo(76.2, 1);
  });
});

describe("lengths and masses with their units", () => {
  const typed = async (label: string, text: string) => {
    await userEvent.clear(screen.getByLabelText(label));
    await userEvent.type(screen.getByLabelText(label), text);
  };

  it("are read as they are typed, and what was understood is shown", async () => {
    const [onLength, onMass] = [vi.fn(), vi.fn()];
    render(
      <>
        <LengthField label="Rim" valueMm={50} leastMm={0} mostMm={500} onChange={onLength} />
        <MassField label="Lift limit" valueG={25_000} leastG={100} mostG={2_000_000} onChange={onMass} />
      </>,
    );
    await typed("Rim", "1/4 in");
    expect(onLength.mock.calls.at(-1)).toEqual([6.35]);
    expect(screen.getByText("= 6.35 mm")).toBeDefined();
    await typed("Lift limit", "2 lb 3 oz");
    expect(onMass.mock.calls.at(-1)).toEqual([992]);
    expect(screen.getByText("= 0.9922 kg")).toBeDefined();
    await typed("Lift limit", "450g");
    expect(onMass.mock.calls.at(-1)).toEqual([450]);
  });

  it("that cannot be read are not taken", async () => {
    const onMass = vi.fn();
    render(<MassField label="Lift limit" valueG={25_000} leastG={1000} mostG={2_000_000} onChange={onMass} />);
    await typed("Lift limit", "heavy");
    expect(screen.getByLabelText("Lift limit").getAttribute("aria-invalid")).toBe("true");
    expect(onMass).not.toHaveBeenCalled();
  });
});

describe("a direction's fields", () => {
  it("turn the bearing and keep the elevation; what would go into the board is refused", async () => {
    const onChange = vi.fn<(direction: Direction) => void>();
    render(<DirectionFields direction={[0, -1, 0]} leastElevationDeg={0} onChange={onChange} />);
    const bearing = screen.getByLabelText("Bearing");
    await userEvent.clear(bearing);
    await userEvent.type(bearing, "90");
    const last = onChange.mock.calls.at(-1)?.[0] as Direction;
    expect(bearingAndElevation(last).bearingDeg).toBeCloseTo(90);
    expect(bearingAndElevation(last).elevationDeg).toBeCloseTo(0);
    onChange.mockClear();
    const elevation = screen.getByLabelText("Elevation");
    await userEvent.clear(elevation);
    await userEvent.type(elevation, "-20");
    expect(onChange.mock.calls.every(([direction]) => direction[2] >= 0)).toBe(true);
  });
});

describe("a choice", () => {
  it("shows what is chosen and hands over what is pressed", async () => {
    const onChange = vi.fn();
    const options = [
      { value: "a", name: "First" },
      { value: "b", name: "Second" },
    ];
    render(<Choice label="Which" value="a" options={options} onChange={onChange} />);
    expect(screen.getByRole("button", { name: "First" }).getAttribute("aria-pressed")).toBe("true");
    await userEvent.click(screen.getByRole("button", { name: "Second" }));
    expect(onChange).toHaveBeenCalledWith("b");
  });
});
