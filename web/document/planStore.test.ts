import { beforeEach, describe, expect, it } from "vitest";
import { newPlan } from "../../core/plan/document/document.ts";
import { beginDrag, endDrag, openPlan, redo, undo, usePlan } from "./planStore.ts";

const edition = () => usePlan.getState().document?.brief.edition;
const setEdition = (value: number) =>
  usePlan.getState().edit((plan) => ({ ...plan, brief: { ...plan.brief, edition: value } }));

beforeEach(() => openPlan("piece", newPlan(), 3));

describe("the plan store", () => {
  it("undoes and redoes edits of the document, and nothing else", () => {
    setEdition(5);
    usePlan.getState().saved(4);
    setEdition(9);
    undo();
    expect(edition()).toBe(5);
    expect(usePlan.getState().revision).toBe(4);
    undo();
    expect(edition()).toBe(1);
    redo();
    redo();
    expect(edition()).toBe(9);
  });

  it("makes one step of a drag, however many edits it took", () => {
    setEdition(2);
    beginDrag();
    for (let k = 3; k < 40; k++) setEdition(k);
    endDrag();
    expect(edition()).toBe(39);
    undo();
    expect(edition()).toBe(2);
  });

  it("keeps no step for a drag that changed nothing", () => {
    setEdition(2);
    beginDrag();
    endDrag();
    undo();
    expect(edition()).toBe(1);
  });

  it("cannot undo into the piece opened before", () => {
    setEdition(7);
    openPlan("another", newPlan(), 1);
    undo();
    expect(edition()).toBe(1);
    expect(usePlan.getState().partId).toBe("another");
  });

  it("drops what was redone once a new edit is made", () => {
    setEdition(2);
    undo();
    setEdition(3);
    redo();
    expect(edition()).toBe(3);
  });
});
