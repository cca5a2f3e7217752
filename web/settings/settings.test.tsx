// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter } from "react-router";
import { afterEach, describe, expect, it, vi } from "vitest";
import { DEFAULT_SETTINGS, type Session, type Settings } from "../../contract/settings.ts";
import { type Asked, standInServer } from "../testing/server.ts";
import { SettingsPage } from "./SettingsPage.tsx";

const ID = "7f8a2c1e-0d4b-4c53-9f0e-6a1b2c3d4e5f";
const session: Session = {
  workshop: { id: ID, name: "The yard" },
  member: { id: ID, name: "Ines" },
  settings: { ...DEFAULT_SETTINGS, memberName: "Ines" },
};

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

async function settingsPage(): Promise<Asked[]> {
  const log = standInServer(({ method, body }) => ({ status: 200, body: method === "PUT" ? body : session }));
  render(
    <QueryClientProvider client={new QueryClient()}>
      <MemoryRouter>
        <SettingsPage />
      </MemoryRouter>
    </QueryClientProvider>,
  );
  await screen.findByDisplayValue("Ines");
  return log;
}

const sent = (log: readonly Asked[]) =>
  log.filter(({ method }) => method === "PUT").map(({ body }) => body as Settings);
const save = () => userEvent.click(screen.getByRole("button", { name: "Save" }));
const type = async (label: string, text: string) => {
  await userEvent.clear(screen.getByLabelText(label));
  if (text) await userEvent.type(screen.getByLabelText(label), text);
};

describe("the settings", () => {
  it("show money in whole units and keep it in minor ones", async () => {
    const log = await settingsPage();
    const field = screen.getByLabelText("Silicone, a kilogram, when lines are suggested") as HTMLInputElement;
    expect(Number(field.value) * 100).toBe(DEFAULT_SETTINGS.rates.siliconePerKgMinor);
    await type("Silicone, a kilogram, when lines are suggested", "19.99");
    await save();
    expect(await screen.findByText("Saved")).toBeDefined();
    expect(sent(log)).toEqual([
      { ...session.settings, rates: { ...session.settings.rates, siliconePerKgMinor: 1999 } },
    ]);
  });

  it("keep units, page and fineness as they are chosen", async () => {
    const log = await settingsPage();
    await userEvent.selectOptions(screen.getByLabelText("Units"), "imperial");
    await userEvent.selectOptions(screen.getByLabelText("Page"), "night");
    await userEvent.selectOptions(screen.getByLabelText("Plans are worked out"), "quick");
    await save();
    expect(await screen.findByText("Saved")).toBeDefined();
    expect(sent(log)[0]).toMatchObject({ units: "imperial", theme: "night", fineness: "quick" });
  });

  it("refuse what makes no sense beside its field, and send nothing", async () => {
    const log = await settingsPage();
    await type("Your name", "");
    await save();
    expect(await screen.findByText("Type your name.")).toBeDefined();
    expect(sent(log)).toEqual([]);
  });
});
