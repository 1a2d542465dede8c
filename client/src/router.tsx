import { createBrowserRouter } from "react-router";
import { figureSheetQuery, libraryQuery } from "./api/queries";
import { AmendmentsPage } from "./amendments/AmendmentsPage";
import { ChartPage } from "./charts/ChartPage";
import { ClientPage } from "./clients/ClientPage";
import { ClientsPage } from "./clients/ClientsPage";
import { RegisterPage } from "./clients/RegisterPage";
import { ClinicViewPage } from "./clinic/ClinicViewPage";
import { DayPage } from "./day/DayPage";
import { FindingsPage } from "./findings/FindingsPage";
import { ContactSheetPage } from "./library/ContactSheetPage";
import { LibraryPage } from "./library/LibraryPage";
import { RungDetailPage } from "./library/RungDetailPage";
import { SignedIn } from "./sign-in/SignedIn";
import { VisitFrame } from "./frame/VisitFrame";
import { TraceFilePage } from "./instruments/TraceFilePage";
import { TracePage } from "./instruments/TracePage";
import { AskPage } from "./intake/AskPage";
import { NeutralPage } from "./intake/NeutralPage";
import { NewClientPage } from "./intake/NewClientPage";
import { LetterPage } from "./letters/LetterPage";
import { MeasuredPhotoPage } from "./photos/MeasuredPhotoPage";
import { AccountPage } from "./people/AccountPage";
import { InvitationPage } from "./sign-in/InvitationPage";
import { AuditPage } from "./people/AuditPage";
import { PeoplePage } from "./people/PeoplePage";
import { PhotoPage } from "./photos/PhotoPage";
import { ComparePage } from "./planning/ComparePage";
import { DischargePage } from "./outcomes/DischargePage";
import { ProgressPage } from "./outcomes/ProgressPage";
import { PlanPage } from "./planning/PlanPage";
import { PoliciesPage } from "./policies/PoliciesPage";
import { DecidePage } from "./progression/DecidePage";
import { OverridesPage } from "./progression/OverridesPage";
import { ReplayPage } from "./progression/ReplayPage";
import { ScreenPage } from "./screening/ScreenPage";
import { SheetPage } from "./take-home/SheetPage";
import { queryClient } from "./queryClient";
import { NotePage } from "./visits/NotePage";
import { SessionPage } from "./visits/SessionPage";

/** Asks for the drawings at once, beside the sign-in and the library, instead of after them. */
function drawings() {
  void queryClient.prefetchQuery(libraryQuery);
  void queryClient.prefetchQuery(figureSheetQuery("right"));
  return null;
}

export const router = createBrowserRouter([
  { path: "/invitation/:code?", element: <InvitationPage /> },
  {
    element: <SignedIn />,
    children: [
      { path: "/", element: <DayPage /> },
      { path: "/new", element: <NewClientPage /> },
      { path: "/clients", element: <ClientsPage /> },
      { path: "/clients/new", element: <RegisterPage /> },
      { path: "/clients/:clientId", element: <ClientPage /> },
      { path: "/clinic", element: <ClinicViewPage /> },
      { path: "/settings", element: <PoliciesPage /> },
      { path: "/people", element: <PeoplePage /> },
      { path: "/audit", element: <AuditPage /> },
      { path: "/account", element: <AccountPage /> },
      { path: "/overrides", element: <OverridesPage /> },
      { path: "/library", element: <LibraryPage />, loader: drawings },
      { path: "/library/rungs/:rungId", element: <RungDetailPage /> },
      { path: "/library/sheet", element: <ContactSheetPage />, loader: drawings },
      {
        path: "/episodes/:episodeId/visits/:visitId",
        element: <VisitFrame />,
        children: [
          { path: "ask", element: <AskPage /> },
          { path: "neutral", element: <NeutralPage /> },
          { path: "screen", element: <ScreenPage /> },
          { path: "findings", element: <FindingsPage /> },
          { path: "plan", element: <PlanPage /> },
          { path: "plan/compare", element: <ComparePage /> },
          { path: "session", element: <SessionPage /> },
          { path: "decide", element: <DecidePage /> },
          { path: "letter", element: <LetterPage /> },
          { path: "note", element: <NotePage /> },
          { path: "chart", element: <ChartPage /> },
          { path: "discharge", element: <DischargePage /> },
          { path: "replay", element: <ReplayPage /> },
          { path: "progress", element: <ProgressPage /> },
          { path: "traces/:traceId", element: <TracePage /> },
          { path: "trials/:trialId/trace-file", element: <TraceFilePage /> },
          { path: "trials/:trialId/photo", element: <PhotoPage /> },
          { path: "trials/:trialId/photos/:eventId", element: <MeasuredPhotoPage /> },
          { path: "amendments", element: <AmendmentsPage /> },
          { path: "take-home", element: <SheetPage /> },
        ],
      },
      { path: "*", element: <DayPage /> },
    ],
  },
]);
