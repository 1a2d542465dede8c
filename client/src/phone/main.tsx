import { createRoot } from "react-dom/client";
import "./phone.css";
import { App } from "./App";
import { openKeep } from "./keep";
import type { Programme } from "./programme";

const programme = JSON.parse(document.getElementById("programme")!.textContent) as Programme;

createRoot(document.getElementById("root")!).render(
  <App programme={programme} keep={openKeep(programme.page)} />,
);
