import { Server } from "./server";

/** The demo is filled once; the server of each file begins with a copy of it. */
export default async function fill() {
  const server = new Server("demo", 5189);
  await server.start();
  await server.stop();
  process.env.PALAESTRA_E2E_FILLED = server.folder;
  return () => server.close();
}
