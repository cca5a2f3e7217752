/** Sets the page going part by part, a task each: all at once they would hold it up. */
import "./theme.css";

const root = document.getElementById("root");
if (!root) throw new Error("The page has no root.");
// What is asked of the server, and the shapes of its answers.
await import("../lib/queries.ts");
// The plan's shapes, and the way to the workers.
await import("../workers/begun.ts");
// Dates as they are shown: a browser's first format for them takes it as long as all the page's own scripts.
await import("../lib/show.ts");
const { start } = await import("./start.tsx");
start(root);
