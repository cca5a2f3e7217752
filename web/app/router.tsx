import { createBrowserRouter, Navigate } from "react-router";
import { CoursePage } from "../course/CoursePage.tsx";
import { SettingsPage } from "../settings/SettingsPage.tsx";
import { ShelfPage } from "../shelf/ShelfPage.tsx";
import { Frame } from "./Frame.tsx";
import { LostPage, TroublePage } from "./TroublePage.tsx";

export const router = createBrowserRouter([
  {
    element: <Frame />,
    errorElement: <TroublePage />,
    children: [
      { path: "/", element: <ShelfPage /> },
      { path: "/settings", element: <SettingsPage /> },
      { path: "/pieces/:pieceId", element: <Navigate to="piece" replace /> },
      { path: "/pieces/:pieceId/:station", element: <CoursePage /> },
      { path: "*", element: <LostPage /> },
    ],
  },
]);
