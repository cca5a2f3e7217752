import { chromium } from "@playwright/test";
import { CHROMIUM, CHROMIUM_FLAGS } from "./browser.ts";
const b = await chromium.launch({ executablePath: CHROMIUM, args: CHROMIUM_FLAGS });
const page = await b.newPage({ viewport: { width: 1280, height: 800 } });
page.on("console", (m) => { if (["error","warning"].includes(m.type())) console.log("console", m.type(), m.text().slice(0,300)); });
page.on("pageerror", (e) => console.log("pageerror", e.message.slice(0,500)));
const base = process.env.BASE ?? "http://127.0.0.1:4870";
const which = process.argv[2] ?? "shelf"; const piece = process.argv[3]; 
await page.goto(base); await page.waitForSelector("h2", {timeout: 20000});
if (which !== "shelf") { await page.getByRole("link", { name: `Open ${piece}` }).click(); await page.waitForSelector('[data-testid=tally][data-quality=settled]', { timeout: 90000 }); 
 await page.getByRole("link", { name: new RegExp(which+" [A-Z].*\\?") }).first().click(); await page.waitForTimeout(2500); }
for (const s of process.argv.slice(5)) { const [k,...r]=s.split("="); const v=r.join("="); if(k==="click") await page.getByRole("button",{name:v}).first().click(); if(k==="text") await page.getByText(v).first().click(); if(k==="wait") await page.waitForTimeout(Number(v)); }
await page.waitForTimeout(1200);
await page.screenshot({ path: process.argv[4] ?? "/tmp/s.png" }); await b.close();
