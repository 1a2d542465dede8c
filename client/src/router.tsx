import type { ComponentType } from "react";
import { createBrowserRouter } from "react-router";
import { figureSheetQuery, libraryQuery } from "./api/queries";
import { contentVersion } from "./api/versions";
import { DayPage } from "./day/DayPage";
import { LoadFailed } from "./frame/LoadFailed";
import { NotFound } from "./frame/NotFound";
import { Title } from "./frame/Title";
import { titles } from "./frame/titles";
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
function page<Name extends string>(
  load: () => Promise<Record<Name, ComponentType>>,
  name: Name,
  title?: string,
) {
  later.push(load);
  return {
    lazy: async () => {
      const Shown: ComponentType = (await load())[name];
      return {
        Component: title
          ? () => (
              <>
                <Title words={[title]} />
                <Shown />
              </>
            )
          : Shown,
      };
    },
  };
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
      {
        path: "/",
        element: (
          <>
            <Title words={[titles.theDay]} />
            <DayPage />
          </>
        ),
      },
      {
        path: "/new",
        ...page(() => import("./intake/NewClientPage"), "NewClientPage", titles.newClient),
      },
      {
        path: "/clients",
        ...page(() => import("./clients/ClientsPage"), "ClientsPage", titles.clients),
      },
      {
        path: "/clients/new",
        ...page(() => import("./clients/RegisterPage"), "RegisterPage", titles.newClient),
      },
      {
        path: "/clients/:clientId",
        ...page(() => import("./clients/ClientPage"), "ClientPage", titles.client),
      },
      {
        path: "/clinic",
        ...page(() => import("./clinic/ClinicViewPage"), "ClinicViewPage", titles.clinic),
      },
      {
        path: "/settings",
        ...page(() => import("./policies/PoliciesPage"), "PoliciesPage", titles.settings),
      },
      { path: "/people", ...page(() => import("./people/PeoplePage"), "PeoplePage", titles.people) },
      { path: "/audit", ...page(() => import("./people/AuditPage"), "AuditPage", titles.audit) },
      {
        path: "/account",
        ...page(() => import("./people/AccountPage"), "AccountPage", titles.account),
      },
      {
        path: "/overrides",
        ...page(() => import("./progression/OverridesPage"), "OverridesPage", titles.overrides),
      },
      {
        path: "/practice",
        ...page(() => import("./practice/PracticePage"), "PracticePage", titles.practice),
      },
      {
        path: "/practice/certificate",
        ...page(() => import("./practice/CertificatePage"), "CertificatePage", titles.practice),
      },
      {
        path: "/practice/runs/:runId",
        ...page(() => import("./practice/RunPage"), "RunPage", titles.practice),
      },
      {
        path: "/practice/recorded/:sessionId",
        ...page(() => import("./practice/RecordedPage"), "RecordedPage", titles.practice),
      },
      {
        path: "/practice/teams/:teamId",
        ...page(() => import("./practice/TeamPage"), "TeamPage", titles.practice),
      },
      {
        path: "/library",
        ...page(() => import("./library/LibraryPage"), "LibraryPage", titles.library),
        loader: drawings,
      },
      {
        path: "/library/rungs/:rungId",
        ...page(() => import("./library/RungDetailPage"), "RungDetailPage", titles.library),
      },
      {
        path: "/library/sheet",
        ...page(() => import("./library/ContactSheetPage"), "ContactSheetPage", titles.library),
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
      { path: "*", element: <NotFound /> },
    ],
  },
]);
