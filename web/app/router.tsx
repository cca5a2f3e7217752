import { createBrowserRouter, Navigate } from "react-router";
import { ShelfPage } from "../shelf/ShelfPage.tsx";
import { Frame } from "./Frame.tsx";
import { Opening } from "./Opening.tsx";
import { LostPage, TroublePage } from "./TroublePage.tsx";

/** The course brings the stations: loaded apart, so that the shelf is there at once. */
const course = () => import("../course/CoursePage.tsx");
const built = () => import("../course/builds/BuildPage.tsx");
const store = () => import("../store/StorePage.tsx");
const maths = () => import("../maths/MathsPage.tsx");
const settings = () => import("../settings/SettingsPage.tsx");

/** Fetches the pages that are likely to be asked for next, and the signs on them, while nothing else is to be done. */
export function fetchAhead(): void {
  const idle = globalThis.requestIdleCallback ?? ((work: () => void) => setTimeout(work, 500));
  idle(() => {
    void course();
    void document.fonts?.load('1em "Signs"', "≈");
  });
}

export const router = createBrowserRouter([
  {
    element: <Frame />,
    errorElement: <TroublePage />,
    hydrateFallbackElement: <Opening />,
    children: [
      { path: "/", element: <ShelfPage /> },
      { path: "/settings", lazy: async () => ({ Component: (await settings()).SettingsPage }) },
      { path: "/maths", lazy: async () => ({ Component: (await maths()).MathsPage }) },
      { path: "/store", lazy: async () => ({ Component: (await store()).StorePage }) },
      { path: "/pieces/:pieceId", element: <Navigate to="piece" replace /> },
      { path: "/pieces/:pieceId/builds/:buildId", lazy: async () => ({ Component: (await built()).BuildPage }) },
      { path: "/pieces/:pieceId/:station", lazy: async () => ({ Component: (await course()).CoursePage }) },
      { path: "*", element: <LostPage /> },
    ],
  },
]);
