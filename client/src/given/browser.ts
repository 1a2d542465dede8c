import rooms from "virtual:words/rooms";
import { learn } from "../words/say";

/** What the simulated browser of the tests lacks. Ids of the page need no escape. */
if (typeof CSS === "undefined") Object.assign(globalThis, { CSS: { escape: (id: string) => id } });

// Tests speak of every room.
learn(rooms);
