import type { IDBPDatabase } from "idb";
import type { components } from "../api/schema";
import type { DayView, StartView } from "../api/types";
import { openBrowserStore } from "./browserStore";
import { lockUpText, unlockText, type Locked, type TabletKey } from "./sealing";

export type TabletVisit = components["schemas"]["TabletVisit"];

/** What a tablet has of today, as the server told it last. */
export interface KeptDay {
  start: StartView;
  /** Version of library and drawings, which lie in the browser beside it. */
  content: string | null;
  day: DayView;
  visits: TabletVisit[];
  /** When it was told: milliseconds since the epoch. */
  at: number;
}

interface Row {
  key: string;
  until: string;
  locked: Locked;
}

/** Today's visits on this tablet, locked up with its key, until the day or the sign-in is over. */
export class TabletDays {
  private constructor(private readonly db: IDBPDatabase | null) {}

  static async open(name = "palaestra-day"): Promise<TabletDays> {
    try {
      const db = await openBrowserStore(name, (created) => {
        created.createObjectStore("day");
      });
      const days = new TabletDays(db);
      await days.wipeOver();
      return days;
    } catch {
      return new TabletDays(null);
    }
  }

  async keep(key: TabletKey, until: string, day: KeptDay) {
    const row: Row = { key: key.id, until, locked: await lockUpText(key.key, day) };
    await this.db?.put("day", row, "today");
  }

  /** Null: there is none, it is over, or somebody else's. */
  async read(key: TabletKey): Promise<KeptDay | null> {
    const row = await this.wipeOver();
    if (row?.key !== key.id) return null;
    return (await unlockText(key.key, row.locked).catch(() => null)) as KeptDay | null;
  }

  wipe = async () => void (await this.db?.clear("day"));

  /** What is over goes before anybody can look at it. */
  async wipeOver() {
    const row = (await this.db?.get("day", "today")) as Row | undefined;
    if (row && Date.now() >= Date.parse(row.until)) {
      await this.wipe();
      return undefined;
    }
    return row;
  }
}
