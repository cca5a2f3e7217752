/** Plans are worked out quickly in the browser tests, but for the one that asks for a real piece's fineness. */
import type { FullConfig } from "@playwright/test";
import type { Session } from "../contract/settings.ts";

export default async function quick({ projects }: FullConfig): Promise<void> {
  const { baseURL } = projects[0].use;
  const { settings } = (await (await fetch(`${baseURL}/api/session`)).json()) as Session;
  const answer = await fetch(`${baseURL}/api/session/settings`, {
    method: "PUT",
    headers: { "content-type": "application/json", origin: baseURL ?? "" },
    body: JSON.stringify({ ...settings, fineness: "quick" }),
  });
  if (!answer.ok) throw new Error(`The settings were refused: ${await answer.text()}`);
}
