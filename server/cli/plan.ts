/** What `./run plan` starts. */
import { threadTeam } from "../compute/team.ts";
import { planCommand } from "./planCommand.ts";

process.exitCode = await planCommand(process.argv.slice(2), {
  out: (text) => void process.stdout.write(text),
  err: (text) => void process.stderr.write(text),
  isWatched: process.stderr.isTTY,
  team: threadTeam(),
});
