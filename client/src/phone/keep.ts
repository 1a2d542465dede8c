import { emptyDiary, type Diary } from "./diary";

/** Where the diary stays: on the phone, or only as long as the page is open. */
export interface Keep {
  /** Whether it is still there after the page was closed. */
  lasting: boolean;
  read(): Diary;
  write(diary: Diary): void;
}

function parsed(text: string | null): Diary {
  try {
    const diary = JSON.parse(text ?? "null") as Partial<Diary> | null;
    return typeof diary?.days === "object" ? { ...emptyDiary, ...diary } : emptyDiary;
  } catch {
    return emptyDiary;
  }
}

/** The address carries the diary where the phone keeps nothing: a page that is loaded again still has it. */
const inAddress = (): Keep => ({
  lasting: false,
  read: () => parsed(decodeURIComponent(location.hash.slice(1)) || null),
  write: (diary) => {
    try {
      history.replaceState(null, "", `#${encodeURIComponent(JSON.stringify(diary))}`);
    } catch {
      // In memory it stays all the same.
    }
  },
});

export function openKeep(page: string): Keep {
  const at = `palaestra-home-${page}`;
  try {
    localStorage.setItem(`${at}-try`, "1");
    localStorage.removeItem(`${at}-try`);
  } catch {
    return inAddress();
  }
  return {
    lasting: true,
    read: () => parsed(localStorage.getItem(at)),
    write: (diary) => {
      try {
        localStorage.setItem(at, JSON.stringify(diary));
      } catch {
        // Full: what is on screen goes on, and the codes give all of it.
      }
    },
  };
}
