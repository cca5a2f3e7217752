// @vitest-environment jsdom
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter } from "react-router";
import { afterEach, expect, it } from "vitest";
import { FORMULAS, readFormulas } from "./formulas.ts";
import { MathsPage } from "./MathsPage.tsx";

afterEach(cleanup);

it("reads the table of formulas, without the files they stand in", () => {
  const table = "| what | formula | file |\n|---|---|---|\n| pots | least of `a` and b | `core/x.ts` |\n\nAnd words.\n";
  expect(readFormulas(table)).toEqual([{ what: "pots", how: "least of a and b" }]);
  expect(FORMULAS.length).toBeGreaterThan(60);
  for (const { how } of FORMULAS) expect(how).not.toMatch(/core\/|\.ts\b/);
});

it("shows them by name, and finds one", async () => {
  render(
    <MemoryRouter>
      <MathsPage />
    </MemoryRouter>,
  );
  expect(screen.getAllByRole("term").length).toBe(FORMULAS.length);
  await userEvent.type(screen.getByLabelText("Find a figure"), "knapsack");
  expect(screen.getAllByRole("term").map((term) => term.textContent)).toEqual(["Packs"]);
});
