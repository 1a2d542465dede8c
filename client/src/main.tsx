import "@fontsource/atkinson-hyperlegible-next/400.css";
import "@fontsource/atkinson-hyperlegible-next/500.css";
import "@fontsource/atkinson-hyperlegible-next/600.css";
import "@fontsource/atkinson-hyperlegible-next/700.css";
import "@fontsource-variable/bricolage-grotesque";
import { QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { HeldAnswers, type Write, type WriteSealed } from "./capture/heldAnswers";
import { Outbox } from "./capture/outbox";
import { OutboxContext } from "./capture/OutboxContext";
import { TabletContext } from "./capture/TabletContext";
import { TabletDays } from "./capture/tabletDay";
import { TabletKeys } from "./capture/tabletKeys";
import { queryClient } from "./queryClient";
import { Entrance } from "./sign-in/Entrance";
import { Look } from "./theme/Look";
import { keepPage } from "./worker";

// How it is written is loaded with the pages that answer.
const writes = () => import("./frame/writeHeld");
const writeLater = {
  own: (async (answer) => (await writes()).writeHeld(answer)) satisfies Write,
  sealed: (async (flag) => (await writes()).writeSealed(flag)) satisfies WriteSealed,
};

// The outbox opens before anything is drawn: what was tapped before a reload is there from the first frame.
const [outbox, keys, days, held] = await Promise.all([
  Outbox.open(),
  TabletKeys.open(),
  TabletDays.open(),
  HeldAnswers.open(writeLater, () => void queryClient.invalidateQueries()),
]);
const tablet = { keys, days, held };

createRoot(document.getElementById("root")!).render(
  <StrictMode>
    <Look>
      <OutboxContext value={outbox}>
        <TabletContext value={tablet}>
          <QueryClientProvider client={queryClient}>
            <Entrance />
          </QueryClientProvider>
        </TabletContext>
      </OutboxContext>
    </Look>
  </StrictMode>,
);

keepPage();
