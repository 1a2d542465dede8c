import { useEffect, useState } from "react";
import { Link } from "react-router";
import { useStart } from "../api/queries";
import { useTablet } from "../capture/TabletContext";
import { Small } from "../controls/layout";
import { say } from "../words/say";

/** Where this tablet keeps the page and has no PIN of whoever is here: it would not open without the server. */
export function NoPinHere() {
  const { keys } = useTablet();
  const who = useStart().data?.signedInAs;
  const [known, setKnown] = useState(false);
  useEffect(() => {
    let over = false;
    void keys.opened().then(() => {
      if (!over) setKnown(true);
    });
    return () => {
      over = true;
    };
  }, [keys]);
  if (!known || !who || keys.who?.name !== who || keys.opensAlone(who)) return null;
  return (
    <Small style={{ marginBottom: 12 }}>
      {say("day.no-pin-here")} <Link to="/account">{say("day.give-it-a-pin")}</Link>
    </Small>
  );
}
