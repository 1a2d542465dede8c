import { useRouteError } from "react-router";
import { Failed } from "./Failed";

/** For a page of the router. */
export const LoadFailed = () => <Failed error={useRouteError()} />;
