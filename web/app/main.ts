/** Sets the page going part by part, a task each: all at once they would hold it up. */
import "./theme.css";

const root = document.getElementById("root");
if (!root) throw new Error("The page has no root.");
// What is asked of the server, and the shapes of its answers.
await import("../lib/queries.ts");
const { start } = await import("./start.tsx");
start(root);
