import "@fontsource/atkinson-hyperlegible-next/400.css";
import "@fontsource/atkinson-hyperlegible-next/500.css";
import "@fontsource/atkinson-hyperlegible-next/600.css";
import "@fontsource/atkinson-hyperlegible-next/700.css";
import "@fontsource-variable/bricolage-grotesque";
import { QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { Outbox } from "./capture/outbox";
import { OutboxContext } from "./capture/OutboxContext";
import { queryClient } from "./queryClient";
import { Entrance } from "./sign-in/Entrance";
import { Look } from "./theme/Look";

// The outbox opens before anything is drawn: what was tapped before a reload is there from the first frame.
const outbox = await Outbox.open();

createRoot(document.getElementById("root")!).render(
  <StrictMode>
    <Look>
      <OutboxContext value={outbox}>
        <QueryClientProvider client={queryClient}>
          <Entrance />
        </QueryClientProvider>
      </OutboxContext>
    </Look>
  </StrictMode>,
);
