import { expect, it } from "vitest";
import { StageListening } from "./listening.ts";

it("what happens on the stage is told to all who listen, until they stop", () => {
  const listening = new StageListening();
  const told: string[] = [];
  const stop = listening.listen("onPick", ([x]) => told.push(`first ${x}`));
  listening.listen("onPick", ([x]) => told.push(`second ${x}`));
  listening.listen("onHandle", (id) => told.push(id));
  listening.tell("onPick", [1, 0, 0]);
  stop();
  listening.tell("onPick", [2, 0, 0]);
  expect(told).toEqual(["first 1", "second 1", "second 2"]);
});
