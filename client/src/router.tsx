import type { ComponentType } from "react";
import { createBrowserRouter } from "react-router";
import { figureSheetQuery, libraryQuery } from "./api/queries";
import { contentVersion } from "./api/versions";
import { DayPage } from "./day/DayPage";
import { LoadFailed } from "./frame/LoadFailed";
import { WithLibrary } from "./WithLibrary";
import { queryClient } from "./queryClient";

/** Asks for the drawings at once, beside the library, instead of after it; not before the server has told their version. */
function drawings() {
  if (!contentVersion()) return null;
  void queryClient.prefetchQuery(libraryQuery);
  void queryClient.prefetchQuery(figureSheetQuery("right"));
  return null;
}

const later: (() => Promise<unknown>)[] = [];

/** A page that is loaded when somebody goes there, or when nobody does anything. */
function page<Name extends string>(load: () => Promise<Record<Name, ComponentType>>, name: Name) {
  later.push(load);
  return { lazy: async () => ({ Component: (await load())[name] }) };
}

/** Loads the pages that were not asked for yet, one after the other; one that cannot be had is asked for again when it is needed. */
export async function fetchAhead() {
  for (const load of later) await load().catch(() => undefined);
}

export const router = createBrowserRouter([
  {
    element: <WithLibrary />,
    errorElement: <LoadFailed />,
    hydrateFallbackElement: <></>,
    children: [
      { path: "/", element: <DayPage /> },
      { path: "/new", ...page(() => import("./intake/NewClientPage"), "NewClientPage") },
      { path: "/clients", ...page(() => import("./clients/ClientsPage"), "ClientsPage") },
      { path: "/clients/new", ...page(() => import("./clients/RegisterPage"), "RegisterPage") },
      { path: "/clients/:clientId", ...page(() => import("./clients/ClientPage"), "ClientPage") },
      { path: "/clinic", ...page(() => import("./clinic/ClinicViewPage"), "ClinicViewPage") },
      { path: "/settings", ...page(() => import("./policies/PoliciesPage"), "PoliciesPage") },
      { path: "/people", ...page(() => import("./people/PeoplePage"), "PeoplePage") },
      { path: "/audit", ...page(() => import("./people/AuditPage"), "AuditPage") },
      { path: "/account", ...page(() => import("./people/AccountPage"), "AccountPage") },
      { path: "/overrides", ...page(() => import("./progression/OverridesPage"), "OverridesPage") },
      { path: "/library", ...page(() => import("./library/LibraryPage"), "LibraryPage"), loader: drawings },
      {
        path: "/library/rungs/:rungId",
        ...page(() => import("./library/RungDetailPage"), "RungDetailPage"),
      },
      {
        path: "/library/sheet",
        ...page(() => import("./library/ContactSheetPage"), "ContactSheetPage"),
        loader: drawings,
      },
      {
        path: "/episodes/:episodeId/visits/:visitId",
        ...page(() => import("./frame/VisitFrame"), "VisitFrame"),
        children: [
          { path: "ask", ...page(() => import("./intake/AskPage"), "AskPage") },
          { path: "neutral", ...page(() => import("./intake/NeutralPage"), "NeutralPage") },
          { path: "screen", ...page(() => import("./screening/ScreenPage"), "ScreenPage") },
          { path: "findings", ...page(() => import("./findings/FindingsPage"), "FindingsPage") },
          { path: "plan", ...page(() => import("./planning/PlanPage"), "PlanPage") },
          { path: "plan/compare", ...page(() => import("./planning/ComparePage"), "ComparePage") },
          { path: "session", ...page(() => import("./visits/SessionPage"), "SessionPage") },
          { path: "decide", ...page(() => import("./progression/DecidePage"), "DecidePage") },
          { path: "letter", ...page(() => import("./letters/LetterPage"), "LetterPage") },
          { path: "note", ...page(() => import("./visits/NotePage"), "NotePage") },
          { path: "chart", ...page(() => import("./charts/ChartPage"), "ChartPage") },
          { path: "discharge", ...page(() => import("./outcomes/DischargePage"), "DischargePage") },
          { path: "replay", ...page(() => import("./progression/ReplayPage"), "ReplayPage") },
          { path: "progress", ...page(() => import("./outcomes/ProgressPage"), "ProgressPage") },
          { path: "traces/:traceId", ...page(() => import("./instruments/TracePage"), "TracePage") },
          {
            path: "trials/:trialId/trace-file",
            ...page(() => import("./instruments/TraceFilePage"), "TraceFilePage"),
          },
          { path: "trials/:trialId/photo", ...page(() => import("./photos/PhotoPage"), "PhotoPage") },
          {
            path: "trials/:trialId/photos/:eventId",
            ...page(() => import("./photos/MeasuredPhotoPage"), "MeasuredPhotoPage"),
          },
          { path: "amendments", ...page(() => import("./amendments/AmendmentsPage"), "AmendmentsPage") },
          { path: "take-home", ...page(() => import("./take-home/SheetPage"), "SheetPage") },
        ],
      },
      { path: "*", element: <DayPage /> },
    ],
  },
]);
